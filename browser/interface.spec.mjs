// The interface for scripts, used by nothing but curl and a shell; and what its description is worth to others.

import { execFileSync, spawn } from 'node:child_process';
import crypto from 'node:crypto';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { expect, test } from '@playwright/test';
import { Validator } from '@seriousme/openapi-schema-validator';
import { demo, noise, Octavox, root } from './octavox.mjs';

let octavox;
let folder;

test.beforeAll(async () => {
    octavox = await Octavox.start();
    folder = fs.mkdtempSync(path.join(os.tmpdir(), 'octavox-scripts-'));
});
test.afterAll(async () => {
    await octavox.end();
    fs.rmSync(folder, { recursive: true, force: true });
});

/** A token that a person makes on the page of settings. */
const token = async (page, ...more) => {
    await page.goto(`${octavox.address}/settings`);
    await page.getByLabel('Name').last().fill('Nightly job');
    for (const label of more) await page.getByLabel(label).check();
    await page.getByRole('button', { name: 'Make a token' }).click();
    const made = await page.getByLabel('The new token').inputValue();
    await page.reload();
    await expect(page.getByLabel('The new token')).toHaveCount(0);

    return made;
};

test('a whole job by curl alone: the examples of the page, pasted as they stand', async ({ page }) => {
    const own = await token(page, 'bring sources in', 'plan and order');
    await page.goto(`${octavox.address}/interface`);
    const examples = (await page.locator('[data-example]').allTextContents()).join('\n').replace('octavox_…', own);
    expect(examples).toContain('Idempotency-Key');
    const sound = noise(3, path.join(folder, 'Lift hall.wav'));
    const said = execFileSync('bash', ['-euo', 'pipefail', '-c', examples], { cwd: folder, encoding: 'utf8', timeout: 60_000 });
    expect(said).toContain('"container":"flac"');
    expect(said).toContain('event: result');
    const compared = JSON.parse(
        execFileSync(path.join(root, 'octavox'), ['compare', sound, path.join(folder, 'Lift hall.flac'), '--json'], { encoding: 'utf8' }),
    );
    expect(compared.identical).toBe(true);
    // The same lines once more: the order is the one of before.
    fs.rmSync(path.join(folder, 'Lift hall.flac'));
    expect(octavox.rows('select count(*) as orders from orders')[0].orders).toBe(1);
});

test('what is described can be read by others, and a token that was taken back opens nothing', async ({ page }) => {
    const document = await (await page.request.get(`${octavox.address}/api/v1/openapi.json`)).json();
    const checked = await new Validator().validate(document);
    expect(checked.errors ?? []).toEqual([]);
    expect(checked.valid).toBe(true);
    const own = await token(page);
    const asked = () => page.request.get(`${octavox.address}/api/v1/sources`, { headers: { Authorization: `Bearer ${own}` } });
    expect((await asked()).status()).toBe(200);
    await page.getByRole('button', { name: 'take back Nightly job' }).first().click();
    expect((await asked()).status()).toBe(401);
    expect((await asked()).headers()['content-type']).toBe('application/problem+json');
});

test('events come while something is made, and listeners do not shut pages out', async ({ page }) => {
    const own = await token(page, 'bring sources in', 'plan and order');
    const address = `${octavox.address}/api/v1`;
    const source = octavox.rows('select id from sources')[0].id;
    const listen = () => {
        const heard = { text: '' };
        let curl;
        // Whoever listened before may not have been missed yet.
        const begin = () => {
            heard.text = '';
            curl = spawn('curl', ['-sN', '-H', `Authorization: Bearer ${own}`, `${address}/events?seconds=120`]);
            curl.stdout.on('data', (data) => {
                heard.text += data;
            });
            curl.on('exit', () => {
                if (heard.text.includes('many-listen')) setTimeout(begin, 200);
            });
        };
        begin();
        heard.end = () => curl.kill();

        return heard;
    };
    const listeners = [listen(), listen(), listen()];
    await expect.poll(() => listeners.every((one) => one.text.includes('retry:'))).toBe(true);
    const refused = await page.request.get(`${address}/events`, { headers: { Authorization: `Bearer ${own}` } });
    expect([refused.status(), (await refused.json()).code]).toEqual([503, 'many-listen']);
    const ordered = await page.request.post(`${address}/orders`, {
        headers: { Authorization: `Bearer ${own}` },
        data: { sources: [source], spec: { container: 'mp3' } },
    });
    expect(ordered.status()).toBe(201);
    await expect.poll(() => listeners.every((one) => /event: result\nid: \d+\ndata: .*"state":"done"/.test(one.text))).toBe(true);
    expect((await page.goto(`${octavox.address}/results`)).ok()).toBe(true);
    listeners.forEach((one) => one.end());
    // Those who went away are missed soon.
    const again = listen();
    await expect.poll(() => again.text.includes('retry:')).toBe(true);
    again.end();
});

test('a file without a header is tried by eye, named to its recorder, and made', async ({ page }) => {
    const wave = fs.readFileSync(demo()('Canal at six in the morning.wav'));
    const [channels, rate, bits] = [wave.readUInt16LE(22), wave.readUInt32LE(24), wave.readUInt16LE(34)];
    const raw = path.join(folder, 'Field take.pcm');
    fs.writeFileSync(raw, wave.subarray(wave.indexOf('data') + 8));
    await page.goto(`${octavox.address}/sources`);
    await page.setInputFiles('#files', raw);
    await page.getByRole('link', { name: 'Try it as sound without a header' }).click();
    await expect(page.locator('[data-headerless-says]')).toContainText('the first');
    await expect(page.locator('#kind')).toHaveValue(`pcm${bits}`);
    await page.locator('#channels').selectOption(String(channels));
    await page.locator('#rate').fill(String(rate));
    await page.locator('#rate').press('Tab');
    await expect(page.locator('[data-headerless-says]')).toContainText('the first 20.0 seconds');
    const played = await page.evaluate(
        () =>
            new Promise((resolve) => {
                const audio = document.querySelector('audio');
                audio.addEventListener('loadedmetadata', () => resolve(audio.duration), { once: true });
                audio.load();
                audio.preload = 'metadata';
            }),
    );
    expect(Math.abs(played - (wave.length - 44) / ((channels * bits) / 8) / rate)).toBeLessThan(0.1);
    await page.getByLabel('Called').fill('Field box');
    await page.getByRole('button', { name: 'It sounds right' }).click();
    await expect(page.getByText('It is read as that now.')).toBeVisible();
    await expect(page.getByText('Without a header')).toBeVisible({ timeout: 20_000 });
    await page.goto(`${octavox.address}/settings`);
    await expect(page.getByText('Field box')).toBeVisible();
    const sum = (bytes) => crypto.createHash('sha256').update(bytes).digest('hex');
    await page.goto(
        `${octavox.address}/order?sources=${octavox.rows("select id from sources where name = 'Field take.pcm'")[0].id}&format=wav`,
    );
    await page.getByRole('button', { name: 'Make 1 file' }).click();
    const [download] = await Promise.all([
        page.waitForEvent('download'),
        page.getByRole('link', { name: /^Download Field take/ }).click({ timeout: 20_000 }),
    ]);
    const made = fs.readFileSync(await download.path());
    expect(sum(made.subarray(made.indexOf('data') + 8))).toBe(sum(fs.readFileSync(raw)));
});

test('many are grouped, taken off the list and had back by one press', async ({ page }) => {
    await page.goto(`${octavox.address}/sources`);
    await page.locator('[data-pick-all]').check();
    await page.getByText('More with them').click();
    await page.getByLabel('Group', { exact: true }).fill('Gate day');
    await page.getByRole('button', { name: 'Group them' }).click();
    await expect(page.getByRole('link', { name: 'Show the group Gate day' })).toHaveCount(2);
    await page.getByText('More with them').click();
    await page.getByRole('button', { name: 'Take them off the list' }).click();
    await expect(page.getByText('2 were taken off the list.')).toBeVisible();
    await page.getByRole('button', { name: 'Put it back' }).click();
    await expect(page.getByRole('link', { name: 'Show the group Gate day' })).toHaveCount(2);
});
