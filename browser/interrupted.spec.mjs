// What goes on: watched, paused, cancelled, killed, and what arrives by itself.

import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { expect, test } from '@playwright/test';
import { demo, noise, Octavox } from './octavox.mjs';

let octavox;
let file;

test.describe.configure({ mode: 'serial' });
test.beforeAll(async () => {
    file = demo();
    octavox = await Octavox.start(`Day one=${path.dirname(file('x'))}`);
});
test.afterAll(() => octavox.end());

test('an upload whose connection breaks goes on where it stopped', async ({ page }) => {
    const long = noise(110, path.join(os.tmpdir(), 'Long take.wav'));
    const offsets = [];
    let broken = false;
    await page.route('**/uploads/**', async (route) => {
        if (route.request().method() === 'PATCH') {
            const offset = Number(route.request().headers()['upload-offset']);
            offsets.push(offset);
            if (offset > 0 && !broken) {
                broken = true;

                return route.abort('connectionreset');
            }
        }

        return route.continue();
    });
    await octavox.bring(page, long);
    const chunk = 8 * 1024 * 1024;
    expect(offsets).toEqual([0, chunk, chunk, 2 * chunk]);
    await expect(page.getByText('16-bit PCM, stereo, 48 kHz').first()).toBeVisible();
});

test('what is being made can be watched, cancelled and begun again', async ({ page }) => {
    await octavox.order(page, 'Long take.wav');
    await page.getByLabel('Make').selectOption('mp3');
    await expect(page.getByText('Long take.mp3').first()).toBeVisible();
    await page.getByRole('button', { name: 'Make 1 file' }).click();
    const row = page.locator('.result').first();
    await expect(row.getByText(/× real time · .* left/)).toBeVisible();
    await page.reload();
    await expect(row).toHaveAttribute('data-state', 'making');
    await row.getByRole('button', { name: /Cancel/ }).click();
    await expect(row).toHaveAttribute('data-state', 'cancelled');
    expect(octavox.results().filter((name) => name.includes('Long take') || name.includes('.part'))).toEqual([]);
    await row.getByRole('button', { name: /again/ }).click();
    await expect(row).toHaveAttribute('data-state', 'done', { timeout: 200_000 });
});

test('whatever is killed, the result ends well and nothing half stands under its name', async ({ page }) => {
    await octavox.order(page, 'Long take.wav');
    await page.getByLabel('Make').selectOption('mp3');
    await page.getByLabel('Name', { exact: true }).fill('{stem} survives');
    await expect(page.getByText('Long take survives.mp3').first()).toBeVisible();
    await page.getByRole('button', { name: 'Make 1 file' }).click();
    const row = page.locator('.result').first();
    const percent = async () =>
        Number(
            await row
                .locator('progress')
                .getAttribute('value')
                .catch(() => 0),
        );
    const working = () => expect.poll(percent).toBeGreaterThan(3);

    // The child: the result fails in one sentence and can be begun again.
    await working();
    octavox.parts('maker\\.php').forEach((part) => process.kill(part, 'SIGSEGV'));
    await expect(row).toHaveAttribute('data-state', 'failed');
    await expect(row.getByText('stopped without a word')).toBeVisible();
    expect(octavox.results().filter((name) => name.includes('survives') || name.includes('.part'))).toEqual([]);
    await row.getByRole('button', { name: /again/ }).click();

    // The workers: they are begun again and take the result up by themselves.
    await working();
    octavox.parts('queue:work --queue=making').forEach((part) => process.kill(part, 'SIGKILL'));
    await expect(row).toHaveAttribute('data-state', 'making');

    // Everything at once, as when the machine loses its power; then it is started anew.
    await working();
    await octavox.kill();
    expect(octavox.results().filter((name) => name.endsWith('survives.mp3'))).toEqual([]);
    await octavox.run();
    await page.goto(`${octavox.address}/results`);
    await expect(row).toHaveAttribute('data-state', 'done', { timeout: 200_000 });
    expect(octavox.results().filter((name) => name.includes('.part'))).toEqual([]);
    const got = await octavox.download(page, 'Long take survives.mp3');
    expect(fs.statSync(got).size).toBeGreaterThan(110 * 24000);
});

test('the work is paused from any page, waits, goes on, and every page says what came of it', async ({ page, context }) => {
    await octavox.bring(page, file('Tour of the lift.mp4'), file('Interview lift keeper.mov'));
    await octavox.order(page, 'Tour of the lift.mp4', 'Interview lift keeper.mov');
    await page.getByLabel('Make').selectOption('vorbis');
    await page.getByLabel('If one fails').selectOption('ask');
    await expect(page.getByRole('button', { name: 'Make 2 files' })).toBeEnabled();
    // Whatever is pressed first: nothing is made as long as everything is paused.
    const token = await page.locator('meta[name=csrf-token]').getAttribute('content');
    await page.request.post(`${octavox.address}/work`, { form: { held: '1', _token: token }, headers: { Origin: octavox.address } });
    await page.getByRole('button', { name: 'Make 2 files' }).click();
    const rows = page.locator('.order').first().locator('.result');
    await expect(rows).toHaveCount(2);
    await expect(rows.first()).toContainText('paused');
    await expect(page.locator('.work-says')).toHaveText('2 paused');
    await rows
        .first()
        .getByRole('button', { name: /^Pause/ })
        .click();
    await expect(rows.first().getByRole('button', { name: /^Go on/ })).toBeVisible();

    const other = await context.newPage();
    await other.goto(`${octavox.address}/sources`);
    await other.getByRole('button', { name: 'go on with everything' }).click();
    await page.reload();
    await expect(rows.nth(1)).toHaveAttribute('data-state', 'done');
    await expect(rows.first()).toHaveAttribute('data-state', 'waiting');
    await rows
        .first()
        .getByRole('button', { name: /^Go on/ })
        .click();
    await expect(rows.first()).toHaveAttribute('data-state', 'done');
    await expect(page.locator('#told')).toContainText('2 of 2 done');
    await expect(page).toHaveTitle('Results – Octavox');
    await other.close();
});

test('a folder is opened on the page of settings, and what lies there comes in', async ({ page }) => {
    const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'octavox-shelf-'));
    fs.copyFileSync(file('Memo gate three.m4a'), path.join(folder, 'Another memo.m4a'));
    fs.appendFileSync(path.join(folder, 'Another memo.m4a'), Buffer.from([0, 0, 0, 9, 0x66, 0x72, 0x65, 0x65, 7]));
    await page.goto(`${octavox.address}/settings`);
    await page.getByLabel('Name', { exact: true }).fill('Recorder');
    await page.getByLabel('Folder', { exact: true }).fill('/');
    await page.getByRole('button', { name: 'Open this folder' }).click();
    await expect(page.getByText('it stays closed. Nothing was changed.')).toBeVisible();
    await page.getByLabel('Folder', { exact: true }).fill(folder);
    await page.getByRole('button', { name: 'Open this folder' }).click();
    await expect(page.getByText('The shelf is open.')).toBeVisible();
    await page.goto(`${octavox.address}/shelves/Recorder`);
    await page.getByLabel('Another memo.m4a').check();
    await page.getByRole('button', { name: /Take/ }).click();
    await page.goto(`${octavox.address}/sources`);
    const row = page.locator('tr', { has: page.getByRole('link', { name: 'Another memo.m4a', exact: true }) }).first();
    await expect(row).not.toHaveClass(/is-reading/);
    await expect(row).toContainText('AAC-LC');
    // As many makers as are wanted now.
    await page.goto(`${octavox.address}/settings`);
    await page.getByLabel('Results at once').fill('3');
    await page.getByRole('button', { name: 'Set it' }).click();
    await expect.poll(() => octavox.parts('queue=making').length).toBe(3);
    await page.getByLabel('Results at once').fill('1');
    await page.getByRole('button', { name: 'Set it' }).click();
    await expect.poll(() => octavox.parts('queue=making').length).toBe(1);
    await page.getByLabel('Results at once').fill('');
    await page.getByRole('button', { name: 'Set it' }).click();
    await page.getByRole('button', { name: 'close Recorder' }).click();
    await expect(page.getByText('What lies on the shelf stays as it is.')).toBeVisible();
    fs.rmSync(folder, { recursive: true, force: true });
});

test('a folder is watched: what lands there while nobody looks is made, once', async ({ page }) => {
    const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'octavox-shelf-'));
    await page.goto(`${octavox.address}/settings`);
    await page.getByLabel('Name', { exact: true }).fill('Card');
    await page.getByLabel('Folder', { exact: true }).fill(folder);
    await page.getByRole('button', { name: 'Open this folder' }).click();
    await page.goto(`${octavox.address}/standing`);
    await page.getByLabel('Title').fill('Card to archive');
    await page.getByLabel('Shelf').selectOption('Card');
    await page.getByRole('button', { name: 'Watch this folder' }).click();
    await expect(page.getByText('Choose a destination or a recipe')).toBeVisible();
    await page.getByLabel('Title').fill('Card to archive');
    await page.getByLabel('What is made of each file').selectOption('by:put-away');
    await page.getByRole('button', { name: 'Watch this folder' }).click();
    await expect(page.getByText('It watches from now on.')).toBeVisible();

    // A file that is written slowly, and is called otherwise before it is done.
    const bytes = fs.readFileSync(file('Note from the lock 0412.wav'));
    const whole = Buffer.concat([bytes, Buffer.from('LIST\x08\0\0\0adtl\0\0\0\0', 'latin1')]);
    fs.writeFileSync(path.join(folder, 'growing.part.wav'), whole.subarray(0, 3000));
    await expect.poll(() => octavox.rows('SELECT state FROM arrivals').map((row) => row.state)).toEqual(['arriving']);
    fs.appendFileSync(path.join(folder, 'growing.part.wav'), whole.subarray(3000));
    fs.renameSync(path.join(folder, 'growing.part.wav'), path.join(folder, 'Note of the day.wav'));
    await expect.poll(() => octavox.rows('SELECT state FROM arrivals').map((row) => row.state)).toEqual(['ordered']);
    await page.reload();
    await page.getByRole('link', { name: /^Card to archive, / }).click();
    await expect(page.locator('.result').first()).toHaveAttribute('data-state', 'done');
    await expect(page.locator('.result').first()).toContainText('Note of the day.flac');
    expect(octavox.rows("SELECT count(*) AS n FROM results WHERE name LIKE 'Note of the day%'")[0].n).toBe(1);
    fs.rmSync(folder, { recursive: true, force: true });
    await expect.poll(() => octavox.rows('SELECT trouble FROM watched_folders')[0].trouble).not.toBe('');
    await page.goto(`${octavox.address}/standing`);
    await page.getByRole('link', { name: 'Card to archive' }).click();
    await page.getByRole('button', { name: 'Delete' }).click();
    await expect(page.getByText('No folder is watched yet.')).toBeVisible();
});

test('a button stays under the pointer and in focus while its row is renewed', async ({ page }) => {
    await octavox.order(page, 'Long take.wav');
    await page.getByLabel('Make').selectOption('mp3');
    await page.getByLabel('Name', { exact: true }).fill('{stem} watched');
    await expect(page.getByText('Long take watched.mp3').first()).toBeVisible();
    await page.getByRole('button', { name: 'Make 1 file' }).click();
    const row = page.locator('.result').first();
    const cancel = row.getByRole('button', { name: /Cancel/ });
    await expect
        .poll(async () =>
            Number(
                await row
                    .locator('progress')
                    .getAttribute('value')
                    .catch(() => 0),
            ),
        )
        .toBeGreaterThan(2);
    await cancel.focus();
    const button = await cancel.elementHandle();
    const seen = await row.locator('progress').getAttribute('value');
    await expect.poll(async () => row.locator('progress').getAttribute('value')).not.toBe(seen);
    expect(await button.evaluate((element) => element.isConnected && document.activeElement === element)).toBe(true);
    await page.keyboard.press('Enter');
    await expect(row).toHaveAttribute('data-state', 'cancelled');
});
