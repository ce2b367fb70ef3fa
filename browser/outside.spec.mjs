// Discs, recorders, players, pages and hosts, as a person uses them; what comes out is decoded and compared.

import { execFileSync } from 'node:child_process';
import fs from 'node:fs';
import http from 'node:http';
import os from 'node:os';
import path from 'node:path';
import AxeBuilder from '@axe-core/playwright';
import { expect, test } from '@playwright/test';
import Parser from 'rss-parser';
import { Octavox, root } from './octavox.mjs';

let octavox;
let data;

test.describe.configure({ mode: 'serial' });
test.beforeAll(async () => {
    data = fs.mkdtempSync(path.join(os.tmpdir(), 'octavox-demo-'));
    octavox = await Octavox.start(`Wrenfield=${data}`);
    execFileSync('php', ['-d', 'ffi.enable=1', 'demo/build.php', data, octavox.home], { cwd: root });
});
test.afterAll(async () => {
    await octavox.end();
    fs.rmSync(data, { recursive: true, force: true });
});

const go = (page, address) => page.goto(octavox.address + address);
const settled = async (page, name) => {
    const row = page.locator('tr', { has: page.getByRole('link', { name, exact: true }) }).first();
    await expect(row).toBeVisible();
    await expect(row).not.toHaveClass(/is-reading/);
};
const make = async (page, count) => {
    await page.getByRole('button', { name: `Make ${count} ${count === 1 ? 'file' : 'files'}` }).click();
    await expect(page).toHaveURL(/results/);
    await expect
        .poll(() => octavox.rows("select count(*) as open from results where state in ('waiting', 'making')")[0].open, { timeout: 60_000 })
        .toBe(0);
    expect(octavox.rows("select name, error_says from results where state = 'failed'")).toEqual([]);
};
const accessible = async (page) => {
    const found = await new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa']).analyze();
    expect(found.violations.map((one) => `${one.id}: ${one.nodes[0].target}`)).toEqual([]);
};

/** What a browser decodes of files: frames, rate, and for each channel the loudest of some tones. */
const decoded = (page, file) =>
    page.evaluate(async (bytes) => {
        const context = new OfflineAudioContext(2, 1, 48000);
        const sound = await context.decodeAudioData(Uint8Array.from(atob(bytes), (letter) => letter.charCodeAt(0)).buffer);
        let energy = 0;
        for (let channel = 0; channel < sound.numberOfChannels; channel++)
            for (const sample of sound.getChannelData(channel)) energy += sample * sample;

        return { frames: sound.length, channels: sound.numberOfChannels, energy };
    }, fs.readFileSync(file).toString('base64'));

test('a title of a video disc in 5.1 becomes stereo MP3, a file of each chapter', async ({ page }) => {
    await go(page, '/outside');
    await page.getByRole('link', { name: 'Drive' }).click();
    await expect(page.getByRole('heading', { level: 1 })).toHaveText('Choir Evening 1994');
    await expect(page.getByText('16-bit PCM, 5.1').first()).toBeVisible();
    await accessible(page);
    await page.getByRole('checkbox', { name: 'Title 1' }).check();
    await page.getByRole('button', { name: 'Take these' }).click();
    await settled(page, 'Choir evening 1994, title 1.iso');
    await page.getByRole('link', { name: 'Choir evening 1994, title 1.iso', exact: true }).click();
    await page.getByRole('button', { name: 'A piece of each chapter' }).click();
    await page
        .getByRole('link', { name: 'Put on the order sheet' })
        .or(page.getByRole('button', { name: 'Put on the order sheet' }))
        .first()
        .click();
    await expect(page.getByRole('heading', { level: 1, name: 'Order sheet' })).toBeVisible();
    const order = octavox.rows('select max(id) as id from orders')[0].id;
    await page.request.fetch(`${octavox.address}/orders/${order}`, {
        method: 'PATCH',
        form: { format: 'mp3', quality: 'kbps:192', layout: 'stereo', apart: '1' },
        headers: { 'X-CSRF-TOKEN': await page.locator('meta[name=csrf-token]').getAttribute('content'), Origin: octavox.address },
    });
    await page.reload();
    await make(page, 3);
    const made = octavox.rows(`select path, samples from results where order_id = ${order} order by id`);
    expect(made.length).toBe(3);
    // Chapters of 5, 4 and 4 seconds.
    for (const [index, seconds] of [5, 4, 4].entries()) {
        const sound = await decoded(page, made[index].path);
        expect(sound.channels).toBe(2);
        expect(sound.frames).toBe(seconds * 48000);
        expect(sound.energy).toBeGreaterThan(50);
    }
});

test('an audio disc becomes tagged FLAC by the catalogue', async ({ page }) => {
    await go(page, '/outside/drive');
    await page.getByRole('button', { name: 'Eject' }).click();
    await expect(page.getByText('The disc is out')).toBeVisible();
    // A disc without words.
    const folder = path.join(octavox.home, 'drive/discs/Brass band');
    fs.writeFileSync(
        path.join(folder, 'Brass band.cue'),
        'FILE "Brass band.bin" BINARY\nTRACK 01 AUDIO\nINDEX 01 00:00:00\nTRACK 02 AUDIO\nINDEX 01 00:05:00\n' +
            'TRACK 03 AUDIO\nINDEX 01 00:09:00\n',
    );
    await page.getByLabel('Beside the drive').selectOption('Brass band');
    await page.getByRole('button', { name: 'Put in' }).click();
    await expect(page.getByText('Audio disc, 3 tracks')).toBeVisible();
    await page.getByRole('button', { name: 'Take this disc' }).click();
    await settled(page, 'Brass band.cue');
    await page.getByRole('link', { name: 'Brass band.cue', exact: true }).click();
    await page.getByRole('link', { name: 'Look it up in the catalogue' }).click();
    await expect(page.getByText('100 %')).toBeVisible();
    await accessible(page);
    await page.getByRole('button', { name: 'Accept it' }).click();
    await expect(page.getByText('Saved beside the source')).toBeVisible();
    const source = octavox.rows("select id from sources where name = 'Brass band.cue'")[0].id;
    await go(
        page,
        `/order?sources=${source}&pieces=${source}:chapters&format=flac&apart=1&name=${encodeURIComponent('{track:2} {title}')}`,
    );
    await expect(page.getByText('03 Song for six boats.flac').first()).toBeVisible();
    await make(page, 3);
    const paths = octavox
        .rows('select path from results order by id desc limit 3')
        .map((row) => row.path)
        .reverse();
    expect(paths.map((one) => path.basename(one))).toEqual(['01 Gate march.flac', '02 Lift waltz.flac', '03 Song for six boats.flac']);
    const facts = JSON.parse(execFileSync(path.join(root, 'octavox'), ['read', paths[2], '--json'], { encoding: 'utf8' })).sources[0];
    expect(facts.tags).toMatchObject({ title: 'Song for six boats', artist: 'Hetty Marlowe', album: 'Steam day', track: '3' });
    expect(facts.cover.type).toBe('image/png');
    expect(facts.tracks[0].samples).toBe(4 * 44100);
});

test('an image and its sheet, brought in together, are one disc from which its tracks are made', async ({ page }) => {
    await go(page, '/sources');
    fs.writeFileSync(
        path.join(data, 'Steam day.bin'),
        Buffer.from(Int16Array.from({ length: 8 * 88200 }, (_, index) => ((index * 7919) % 20011) - 10005).buffer),
    );
    fs.writeFileSync(
        path.join(data, 'Steam day.cue'),
        'FILE "STEAM DAY.BIN" BINARY\nTRACK 01 AUDIO\nTITLE "Gate"\nINDEX 01 00:00:00\n' +
            'TRACK 02 AUDIO\nTITLE "Rest"\nINDEX 00 00:04:00\nINDEX 01 00:05:00\n',
    );
    await page.setInputFiles(
        '#files',
        ['Steam day.cue', 'Steam day.bin'].map((name) => path.join(data, name)),
    );
    const row = page.locator('tr', { has: page.getByRole('link', { name: 'Steam day.cue', exact: true }) });
    await expect(row.getByText('with Steam day.bin')).toBeVisible();
    await expect(row).not.toHaveClass(/is-reading|is-unreadable/);
    await expect(page.getByRole('link', { name: 'Steam day.bin', exact: true })).toHaveCount(0);
    const source = octavox.rows("select id from sources where name = 'Steam day.cue'")[0].id;
    await go(page, `/sources/${source}`);
    await page.getByRole('button', { name: 'A piece of each, without the gaps' }).click();
    await expect(page.locator('[data-pieces-table] tbody tr')).toHaveCount(2);
    await expect(page.locator('[data-pieces-table] tbody tr').first()).toContainText('0:04.000');
    await page.getByRole('button', { name: 'A piece of each chapter' }).click();
    await expect(page.locator('[data-pieces-table] tbody tr').first()).toContainText('0:05.000');
    await go(page, `/order?sources=${source}&pieces=${source}:chapters&format=wav&apart=1&name=${encodeURIComponent('{track:2} {title}')}`);
    await make(page, 2);
    const [first] = octavox
        .rows('select path from results order by id desc limit 2')
        .map((one) => one.path)
        .reverse();
    const image = fs.readFileSync(path.join(data, 'Steam day.bin'));
    const made = fs.readFileSync(first);
    const at = made.indexOf('data') + 8;
    expect(path.basename(first)).toBe('01 Gate.wav');
    expect(made.subarray(at, at + 5 * 176400).equals(image.subarray(0, 5 * 176400))).toBe(true);
});

test('a recorder is copied in whole, and a second visit finds nothing new', async ({ page }) => {
    await go(page, '/outside/recorders');
    await accessible(page);
    await page.getByRole('button', { name: 'Copy in what is new on Field recorder' }).click();
    await expect(page.getByText('it can be pulled out')).toBeVisible();
    await go(page, '/sources');
    await settled(page, '2026-05-09 06.12.00 Field recorder');
});

test('sources are sent to a player, which gets what it takes', async ({ page }) => {
    await go(page, '/shelves/Wrenfield');
    await page.getByLabel('Steam day capture.m2ts').check();
    await page.getByRole('button', { name: 'Take these' }).click();
    await settled(page, 'Steam day capture.m2ts');
    const another = page.getByRole('button', { name: 'Keep it as a draft, begin another' });
    if (await another.isVisible()) await another.click();
    await page.getByRole('checkbox', { name: 'Choose Steam day capture.m2ts' }).check();
    await page.getByText('More with them').click();
    await page.getByRole('link', { name: 'Send them to a player' }).click();
    await expect(page.getByText('64.0 MB free of 64.0 MB')).toBeVisible();
    await accessible(page);
    await page.getByRole('button', { name: 'Send the 1 chosen source' }).click();
    await expect(page.getByText('This is what will be on it.')).toBeVisible();
    await make(page, 1);
    await go(page, '/outside/players');
    await expect(page.getByText('MUSIC/Unknown/Steam day capture.mp3')).toBeVisible();
    const sound = await decoded(page, path.join(octavox.home, 'players/Pocket player/MUSIC/Unknown/Steam day capture.mp3'));
    expect(sound.channels).toBe(2);
    expect(sound.frames).toBeGreaterThanOrEqual(12 * 48000);
    expect(fs.readdirSync(path.join(octavox.home, 'players/Pocket player/PLAYLISTS')).length).toBe(1);
});

test('a page with a player plays in a browser, by keyboard alone', async ({ page, browser }) => {
    const results = octavox.rows("select id from results where path like '%.flac' order by id").map((row) => row.id);
    await go(page, `/outside/page?results=${results.join(',')}`);
    await page.getByLabel('Title').fill('Steam day');
    await page.getByLabel('Title').press('Tab');
    await expect(page.frameLocator('iframe').getByRole('heading', { name: 'Steam day' })).toBeVisible();
    await accessible(page);
    const [got] = await Promise.all([
        page.waitForEvent('download'),
        page.getByRole('button', { name: 'Page and sound as one ZIP' }).click(),
    ]);
    const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'octavox-page-'));
    await got.saveAs(path.join(folder, 'page.zip'));
    execFileSync('php', [
        '-r',
        '$zip = new ZipArchive; $zip->open($argv[1]); $zip->extractTo($argv[2]);',
        path.join(folder, 'page.zip'),
        folder,
    ]);
    const asked = [];
    const server = http
        .createServer((request, response) => {
            const name = decodeURIComponent(request.url.slice(1));
            asked.push(name);
            const file = path.join(folder, name);
            if (!fs.existsSync(file)) return response.writeHead(404).end();
            response.writeHead(200, { 'Content-Type': name.endsWith('.html') ? 'text/html' : 'audio/flac' });
            fs.createReadStream(file).pipe(response);
        })
        .listen(0, '127.0.0.1');
    await new Promise((resolve) => server.once('listening', resolve));
    const visitor = await (await browser.newContext()).newPage();
    const troubles = [];
    visitor.on('pageerror', (error) => troubles.push(error.message));
    await visitor.goto(`http://127.0.0.1:${server.address().port}/Steam%20day.html`);
    await accessible(visitor);
    await visitor.keyboard.press('Tab');
    await visitor.keyboard.press('Enter');
    await expect(visitor.getByRole('button', { name: 'Pause' })).toBeVisible();
    await expect.poll(() => visitor.evaluate(() => window.player.currentTime)).toBeGreaterThan(0.2);
    await visitor.getByRole('button', { name: /Song for six boats/ }).press('Enter');
    await expect.poll(() => visitor.evaluate(() => window.player.src)).toContain('Song%20for%20six%20boats');
    await visitor.getByRole('slider', { name: 'Place in the sound' }).press('End');
    await expect(visitor.getByRole('slider')).toHaveAttribute('aria-valuetext', /0:0[34] of 0:04/);
    expect(troubles).toEqual([]);
    expect(asked.filter((name) => !fs.existsSync(path.join(folder, name)) && name !== 'favicon.ico')).toEqual([]);
    server.close();
    await visitor.close();
});

test('a host refuses an episode with its reasons, takes the one that is right, and its feed is understood', async ({ page }) => {
    const flac = octavox.rows("select id from results where path like '%.flac' order by id limit 1")[0].id;
    await go(page, `/outside/publish?results=${flac}`);
    await accessible(page);
    await page.getByRole('button', { name: /^Offer/ }).click();
    await expect(page.getByText('is refused by')).toBeVisible();
    // The cover that the host wants comes from the catalogue, which knows the tour by its sound; the rest is what the destination does.
    await go(page, '/shelves/Wrenfield');
    await page.getByLabel('Tour of the lift.mp4').check();
    await page.getByRole('button', { name: 'Take these' }).click();
    await settled(page, 'Tour of the lift.mp4');
    await page.getByRole('link', { name: 'Tour of the lift.mp4', exact: true }).click();
    await page.getByRole('link', { name: 'Look it up in the catalogue' }).click();
    await page.getByRole('button', { name: 'Accept it' }).click();
    await expect(page.getByText('Saved beside the source')).toBeVisible();
    const source = octavox.rows("select id from sources where name = 'Tour of the lift.mp4'")[0].id;
    // How loud it is decides what is done to it.
    await expect
        .poll(
            () =>
                octavox.rows(`select count(*) as open from tracks where source_id = ${source} and kind = 'sound' and analysis is null`)[0]
                    .open,
        )
        .toBe(0);
    await go(page, `/order?sources=${source}`);
    await page.getByLabel('Goes to').selectOption({ label: 'Podcast host' });
    await make(page, 1);
    const order = octavox.rows('select max(id) as id from orders')[0].id;
    const made = octavox.rows(`select id, path from results where order_id = ${order}`)[0];
    await go(page, `/outside/publish?results=${made.id}`);
    await page.getByRole('button', { name: /^Offer/ }).click();
    await expect(page.getByText('is published by')).toBeVisible();
    const feed = await (await page.request.get(`${octavox.address}/hosted/canal-podcast/feed.xml`)).text();
    const parsed = await new Parser().parseString(feed);
    expect(parsed.title).toBe('The canal’s podcast');
    expect(parsed.items.length).toBe(1);
    expect(Number(parsed.items[0].enclosure.length)).toBe(fs.statSync(made.path).size);
    // The least that the host accepts: its sound is kept, in M4A.
    expect(parsed.items[0].enclosure.type).toBe('audio/mp4');
    expect(parsed.items[0].guid).toMatch(/^[0-9a-f]{32}$/);
    const file = await page.request.get(
        `${octavox.address}/hosted/canal-podcast/${path.basename(new URL(parsed.items[0].enclosure.url).pathname)}`,
    );
    expect((await file.body()).length).toBe(fs.statSync(made.path).size);
});
