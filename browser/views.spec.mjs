// What holds for every page: for everyone, in a narrow window, by whatever way somebody comes.

import { execFileSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { expect, test } from '@playwright/test';
import { demo, noise, Octavox, root } from './octavox.mjs';

let octavox;
let file;

test.describe.configure({ mode: 'serial' });
test.beforeAll(async () => {
    file = demo();
    octavox = await Octavox.start(`Day one=${path.dirname(file('x'))}`);
});
test.afterAll(() => octavox.end());

test('every view can be used by everyone and fits a narrow window', async ({ page }) => {
    await octavox.bring(page, file('Tour of the lift.mp4'), file('Interview lift keeper.mov'), file('Opening ceremony.mkv'));
    await octavox.order(page, 'Tour of the lift.mp4', 'Interview lift keeper.mov');
    await page.getByRole('button', { name: 'Make 2 files' }).click();
    await expect(page.locator('.result[data-state=done]')).toHaveCount(2);
    await page.goto(`${octavox.address}/sources`);
    const [source] = await page.locator('tr[data-source]').evaluateAll((rows) => rows.map((row) => row.dataset.source).slice(-1));
    expect(source).toMatch(/^\d+$/);
    for (const view of [
        '/sources',
        `/sources/${source}`,
        `/order?sources=${source},999&format=mp3`,
        `/order?sources=${source}&format=wav&layout=split&labels=lav,boom&level=lufs:-16`,
        '/orders',
        '/orders/2/tags',
        '/results',
        '/shelves',
        '/settings',
        '/standing',
        '/nowhere',
    ])
        await octavox.isForEveryone(page, view);
});

test('what is chosen stays chosen: over pages, searches and the way back, and goes onto the sheet as it stands', async ({ page }) => {
    const shelf = fs.mkdtempSync(path.join(os.tmpdir(), 'octavox-many-'));
    const own = await Octavox.start(`Many=${shelf}`);
    try {
        const wave = noise(1, path.join(shelf, '0000.wav'));
        // Each of them is another one: the last sample is its number.
        const bytes = fs.readFileSync(wave);
        for (let one = 1; one < 130; one += 1) {
            bytes.writeUInt16LE(one, bytes.length - 2);
            fs.writeFileSync(path.join(shelf, `${String(one).padStart(4, '0')}.wav`), bytes);
        }
        await page.goto(`${own.address}/shelves`);
        await page.getByLabel('Choose all files in this folder').check();
        await page.getByRole('button', { name: 'Take these' }).click();
        await expect(page.getByText('130 files taken from Many; nothing was copied.')).toBeVisible();
        await expect.poll(() => page.locator('tr.is-reading').count(), { timeout: 90_000 }).toBe(0);

        const count = page.locator('[data-pick-count]');
        await page.locator('tbody input').first().check();
        await expect(count).toHaveText('1');
        await page.getByRole('link', { name: 'After' }).click();
        await page.locator('tbody input').nth(1).check();
        await expect(count).toHaveText('2');
        await page.getByLabel('Find').fill('0007');
        await expect(page.locator('tbody tr')).toHaveCount(1);
        await page.locator('tbody input').first().check();
        await expect(count).toHaveText('3');
        await page.getByRole('link', { name: 'Put on the order sheet' }).click();
        await expect(page.getByRole('button', { name: 'Make 3 files' })).toBeVisible();
        await page.getByLabel('Make').selectOption('flac');
        await expect(page.getByText('0007.flac')).toBeVisible();
        await page.goBack();
        await expect(count).toHaveText('3');
        await page.goto(`${own.address}/sources`);
        await expect(page.locator('tbody input').first()).toBeChecked();

        // Another one joins the sheet as it stands; Shift takes all between.
        await page.locator('tbody input').nth(5).check();
        await expect(count).toHaveText('4');
        await page
            .locator('tbody input')
            .nth(7)
            .click({ modifiers: ['Shift'] });
        await expect(count).toHaveText('6');
        await page.locator('tbody input').nth(6).uncheck();
        await page.locator('tbody input').nth(7).uncheck();
        await expect(count).toHaveText('4');
        await page.getByRole('link', { name: 'Order sheet', exact: true }).click();
        await expect(page.getByRole('button', { name: 'Make 4 files' })).toBeVisible();
        await expect(page.getByLabel('Make')).toHaveValue('flac');

        // Enter settles a name; two presses make one order.
        await page.getByLabel('Name', { exact: true }).fill('{stem} by day');
        await page.keyboard.press('Enter');
        await expect(page.getByText('by day.flac').first()).toBeVisible();
        await expect(page).toHaveURL(/\/orders\/1$/);
        await page.getByRole('button', { name: 'Make 4 files' }).dblclick();
        await expect(page.locator('.result[data-state=done]')).toHaveCount(4);
        await page.goto(`${own.address}/results`);
        await expect(page.locator('.order')).toHaveCount(1);
    } finally {
        await own.end();
        fs.rmSync(shelf, { recursive: true, force: true });
    }
});

test('the web process plans what the command plans, byte for byte', async ({ page }) => {
    const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'octavox-cut-'));
    const replicated = path.join(folder, 'Replicated.m4a');
    const six = path.join(folder, 'Six tracks.mov');
    execFileSync('php', [
        '-d',
        'ffi.enable=1',
        '-r',
        `require $argv[1].'/vendor/autoload.php';
        use Octavox\\Core\\Tests\\Support\\{ReplicatedAac, Signal}; use Octavox\\Core\\Testing\\WriterTrack;
        [$encoder, $packets] = Signal::encode(
            new Octavox\\Core\\Media\\AudioFormat(Octavox\\Core\\Media\\Codec::Aac, 24000, Octavox\\Core\\Sound\\Layout::mono()),
            Octavox\\Core\\Codec\\RateControl::exactly(48), [Signal::sweep(72_000)]);
        file_put_contents($argv[2], Signal::movie([
            WriterTrack::sound($encoder->audio(), ReplicatedAac::of($packets, true), $encoder->delay(), 72_000)], true, 'M4A ', null, 24000));
        file_put_contents($argv[3], Signal::movie([Signal::pictureTrack(30),
            ...array_map(fn (int $seed) => Signal::pcmTrack([Signal::steps(24_000, $seed)],
                Octavox\\Core\\Media\\SampleFormat::signed(16, true)), range(1, 6))], brand: 'qt  '));`,
        path.join(root, 'core'),
        replicated,
        six,
    ]);
    const [memo, rehearsal, capture] = ['Memo gate three.m4a', 'Evening rehearsal.mp3', 'Steam day capture.m2ts'].map(file);
    await octavox.bring(page, replicated, six, memo, rehearsal, capture);
    // What was measured counts for the sizes that are foretold.
    await expect.poll(() => octavox.rows("select count(*) as left from tracks where kind = 'sound' and analysis is null")[0].left).toBe(0);
    const piece = ['--pieces', '0.5-1.5'];
    for (const [source, wish, options] of [
        [replicated, 'format=aac&pieces=ID:0.5-1.5', ['--format', 'aac', ...piece]],
        [replicated, 'format=mka&pieces=ID:0.5-1.5', ['--format', 'mka', ...piece]],
        [memo, 'format=aac&pieces=ID:0.5-1.5', ['--format', 'aac', ...piece]],
        [rehearsal, 'format=mp3&pieces=ID:0.5-1.5', ['--format', 'mp3', ...piece]],
        [
            rehearsal,
            'format=flac&layout=split&name={stem} {layout}',
            ['--format', 'flac', '--layout', 'split', '--name', '{stem} {layout}'],
        ],
        [capture, 'format=mp4', ['--format', 'mp4']],
        [capture, 'format=mkv&sound=opus&level_kind=peak&level_value=-1', ['--format', 'mkv', '--sound', 'opus', '--level', 'peak:-1']],
        [six, 'format=wav&track=joined&layout=5.1', ['--format', 'wav', '--track', 'joined', '--layout', '5.1']],
    ]) {
        await page.goto(`${octavox.address}/sources`);
        const id = await page
            .locator('tr', { has: page.getByRole('link', { name: path.basename(source), exact: true }) })
            .first()
            .getAttribute('data-source');
        await page.goto(`${octavox.address}/order?sources=${id}&${wish.replace('ID', id)}`);
        await page.getByRole('button', { name: /^Make \d files?$/ }).click();
        await expect(page.locator('.result').first()).toBeVisible();
        const stored = octavox.rows('select plan, order_id from results where order_id = (select max(id) from orders) order by id');
        const into = path.join(octavox.home, 'results', String(stored[0].order_id).padStart(4, '0'));
        const own = octavox.rows(`select path from sources where id = ${id}`)[0].path;
        const planned = JSON.parse(
            execFileSync(path.join(root, 'octavox'), ['make', own, '--into', into, ...options, '--plan', '--json'], { encoding: 'utf8' }),
        ).results;
        expect(stored.map((one) => JSON.stringify(JSON.parse(one.plan)))).toEqual(planned.map((one) => JSON.stringify(one.plan)));
    }
    fs.rmSync(folder, { recursive: true, force: true });
});

test('whatever can be pressed is at least 24 pixels high and wide', async ({ page }) => {
    for (const width of [1280, 420]) {
        await page.setViewportSize({ width, height: 800 });
        for (const address of ['/sources', '/shelves', '/results', '/order?sources=1,2&format=mp3']) {
            await page.goto(octavox.address + address);
            const small = await page.evaluate(() =>
                [...document.querySelectorAll('a[href], button, input:not([type=hidden]), select, summary')]
                    .filter((one) => {
                        const box = one.getBoundingClientRect();

                        return (
                            box.width > 0 &&
                            !one.matches('.unseen, .skip') &&
                            !(one.tagName === 'A' && getComputedStyle(one).display === 'inline') &&
                            (box.width < 23.5 || box.height < 23.5)
                        );
                    })
                    .map((one) => one.outerHTML.slice(0, 120)),
            );
            expect(small).toEqual([]);
            expect(await page.evaluate(() => document.documentElement.scrollWidth <= innerWidth)).toBe(true);
        }
    }
});

test('what is chosen before the scripts of a page are there counts as well', async ({ page }) => {
    let release;
    const held = new Promise((resolve) => {
        release = resolve;
    });
    await page.route('**/htmx.min.js', async (route) => {
        await held;
        await route.continue();
    });
    await page.goto(`${octavox.address}/order?sources=1`, { waitUntil: 'commit' });
    await page.getByLabel('Make').selectOption('flac');
    await page.getByLabel('Name', { exact: true }).fill('{stem} soon');
    release();
    await expect(page.locator('.way-out h3')).toHaveText(/ soon\.flac$/);
});
