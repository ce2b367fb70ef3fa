// The order sheet with hundreds of lines, as a person uses it: marks, changes of some lines, tags, folders; through a restart in the
// middle.

import { execFileSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { expect, test } from '@playwright/test';
import { Octavox } from './octavox.mjs';

const LINES = 300;

/** A WAV of a fifth of a second in stereo whose samples begin with a number. */
const wave = (number) => {
    const frames = 9600;
    const bytes = Buffer.alloc(44 + frames * 4);
    bytes.write('RIFF');
    bytes.writeUInt32LE(36 + frames * 4, 4);
    bytes.write('WAVEfmt ', 8);
    [
        [16, 4],
        [1, 2],
        [2, 2],
        [48000, 4],
        [192000, 4],
        [4, 2],
        [16, 2],
    ].reduce((at, [value, size]) => {
        bytes.writeUIntLE(value, at, size);
        return at + size;
    }, 16);
    bytes.write('data', 36);
    bytes.writeUInt32LE(frames * 4, 40);
    for (let frame = 0; frame < frames; frame += 1) {
        bytes.writeInt16LE(Math.round(9000 * Math.sin(frame * (0.02 + number / 20_000))), 44 + 4 * frame);
        bytes.writeInt16LE(Math.round(4000 * Math.sin(frame * 0.05)), 46 + 4 * frame);
    }
    bytes.writeInt16LE(number, 44);

    return bytes;
};

let octavox;
let shelf;

test.describe.configure({ mode: 'serial' });
test.beforeAll(async () => {
    shelf = fs.mkdtempSync(path.join(os.tmpdir(), 'octavox-sheet-'));
    fs.mkdirSync(path.join(shelf, 'Day one'));
    for (let number = 1; number <= LINES; number += 1)
        fs.writeFileSync(path.join(shelf, 'Day one', `${String(number).padStart(3, '0')} - Take ${number}.wav`), wave(number));
    octavox = await Octavox.start(`Rushes=${shelf}`);
});
test.afterAll(async () => {
    await octavox.end();
    fs.rmSync(shelf, { recursive: true, force: true });
});

test('a folder of three hundred goes onto one sheet, tick by tick, over all pages', async ({ page }) => {
    await page.goto(`${octavox.address}/shelves`);
    await page.getByRole('link', { name: 'Day one/' }).click();
    await page.getByLabel('Choose all files in this folder').check();
    await page.getByRole('button', { name: 'Take these' }).click();
    await expect
        .poll(() => octavox.rows("select count(*) as open from sources where state = 'reading'")[0].open, { timeout: 90_000 })
        .toBe(0);
    await page.goto(`${octavox.address}/sources?by=name`);
    for (let number = 1; ; number += 1) {
        await page.getByLabel('Choose all on this page').check();
        await expect(page.locator('[data-pick-count]')).toHaveText(String(number * 60));
        const after = page.getByRole('link', { name: 'After' });
        if ((await after.count()) === 0) break;
        const before = page.url();
        await after.click();
        await expect(page).not.toHaveURL(before);
        await expect(page.getByLabel('Choose all on this page')).not.toBeChecked();
    }
    await page.getByRole('link', { name: 'Put on the order sheet' }).click();
    await expect(page.getByRole('button', { name: `Make ${LINES} files` })).toBeVisible();
    await expect(page.locator('.line').first()).toBeVisible();
    // The rest comes as it is looked at.
    expect(await page.locator('.line').count()).toBeLessThan(LINES);
    await expect
        .poll(async () => {
            await page.evaluate(() => scrollTo(0, document.body.scrollHeight));

            return page.locator('.line').count();
        })
        .toBe(LINES);
});

test('marks by keyboard, changes for some lines only, what differs is shown and set back', async ({ page }) => {
    await page.goto(`${octavox.address}/order`);
    await page.getByLabel('Make', { exact: true }).selectOption('flac');
    await expect(page.locator('.row-out h3').first()).toHaveText('001 - Take 1.flac');
    await page.locator('body').press('?');
    await expect(page.getByRole('dialog')).toContainText('open or close the line');
    await page.getByRole('button', { name: 'Close' }).click();
    const mark = (number) => page.getByRole('checkbox', { name: `Mark ${String(number).padStart(3, '0')} - Take ${number}.wav` });
    await mark(3).focus();
    await page.keyboard.press('Space');
    await page.keyboard.press('Shift+ArrowDown');
    await page.keyboard.press('Shift+ArrowDown');
    await expect(page.locator('#marks')).toContainText('3 marked');
    await mark(10).click({ modifiers: ['Shift'] });
    await expect(page.locator('#marks')).toContainText('8 marked');

    // A line is opened by its key; what is changed there goes to the marked ones.
    await mark(3).focus();
    await page.keyboard.press('o');
    const panel = page.locator('.panel').first();
    await panel.getByLabel('the marked ones').check();
    await panel.getByRole('button', { name: 'Other settings for this line' }).click();
    await panel.getByLabel('Channels', { exact: true }).selectOption('mono');
    await expect(page.locator('.row-more', { hasText: 'mono of all' })).toHaveCount(8);
    await page.getByLabel('Show').selectOption('changed');
    await expect(page.locator('.line')).toHaveCount(8);
    await expect(page).toHaveURL(/show=changed/);
    await page.reload();
    await expect(page.locator('.line')).toHaveCount(8);
    await page.locator('[data-back=layout]').first().click();
    await expect(page.locator('.line')).toHaveCount(7);
    await page.getByLabel('Find').fill('take 7');
    await expect(page.locator('.line')).toHaveCount(1);
    await page.getByLabel('Find').fill('');
    await page.getByLabel('Show').selectOption('all');
    await expect(page.getByRole('button', { name: `Make ${LINES} files` })).toBeVisible();
});

test('tags out of names, folders out of tags, seen before anything is made', async ({ page }) => {
    await page.goto(`${octavox.address}/order`);
    await page.getByRole('button', { name: 'Mark none' }).click();
    await expect(page.locator('#marks')).toContainText('None marked');
    await page.getByRole('link', { name: 'Tags of all lines' }).click();
    await page.getByRole('button', { name: 'Take tags from names' }).click();
    await expect(page.getByText('600 fields were changed')).toBeVisible();
    await page.getByLabel('album of 001 - Take 1.wav').fill('Rushes of the lift');
    await page.locator('select[name=field]').selectOption('album');
    await page.getByRole('button', { name: 'Give all what the first has' }).click();
    await expect(page.getByText('299 fields were changed')).toBeVisible();
    // What is typed is kept though the page is left at once, and can be taken back when somebody comes back.
    await page.getByLabel('comment of 002 - Take 2.wav').fill('gates open');
    await page.goto(`${octavox.address}/order`);
    await page.getByRole('link', { name: 'Tags of all lines' }).click();
    // On a busy machine the page may be back before what it sent last is written.
    await expect(async () => {
        await page.reload();
        await expect(page.getByLabel('comment of 002 - Take 2.wav')).toHaveValue('gates open', { timeout: 500 });
    }).toPass();
    await page.getByRole('button', { name: 'Take the last change back' }).click();
    await expect(page.getByText('it was of one line')).toBeVisible();
    await expect(page.getByLabel('comment of 002 - Take 2.wav')).toHaveValue('');
    await page.getByRole('link', { name: 'Back to the order sheet' }).click();
    // What is chosen in the foot is kept as well, wherever somebody goes.
    await page.getByLabel('If the name is taken').selectOption('replace');
    await page.getByLabel('If one fails').selectOption('ask');
    await page.getByLabel('The sources').selectOption('copy');
    await expect.poll(() => octavox.rows("select care || ' ' || on_failure as kept from orders where id = 1")[0].kept).toBe('copy ask');
    await page.reload();
    await expect(page.getByLabel('If the name is taken')).toHaveValue('replace');
    await expect(page.getByLabel('If one fails')).toHaveValue('ask');
    await expect(page.getByLabel('The sources')).toHaveValue('copy');
    await page.getByLabel('If the name is taken').selectOption('number');
    await page.getByLabel('If one fails').selectOption('go-on');
    await page.getByLabel('The sources').selectOption('keep');
    await expect.poll(() => octavox.rows("select care || ' ' || on_failure as kept from orders where id = 1")[0].kept).toBe('keep go-on');
    await page.getByLabel('Order', { exact: true }).first().fill('Lift day');
    await page.getByText('Words and folders to put in').click();
    await page.getByRole('button', { name: 'only the original name' }).click();
    await page.getByLabel('Name', { exact: true }).fill('{order}/{album}/{track:3} {title}');
    await expect(page.locator('.row-out h3').first()).toHaveText('Lift day/Rushes of the lift/001 Take 1.flac');
    await page.getByLabel('Name', { exact: true }).fill('{order}/{albums}/x');
    await expect(page.getByText('There is no field {albums}').first()).toBeVisible();
    await expect(page.getByRole('button', { name: 'Make 0 files' })).toBeDisabled();
    await page.getByLabel('Name', { exact: true }).fill('{order}/{album}/{track:3} {title}');
    await expect(page.getByRole('button', { name: `Make ${LINES} files` })).toBeEnabled();
});

test('the sheet and its pages can be used by everyone and fit a narrow window', async ({ page }) => {
    for (const view of [
        '/order?find=00',
        '/recipes',
        '/recipes/episode',
        '/destinations',
        '/destinations/podcast-host',
        '/results?show=bin',
        '/sources?for=pocket-player',
    ])
        await octavox.isForEveryone(page, view);
});

test('one file breaks and everything is killed in the middle: the others are made, none twice, and it is made in the end', async ({
    page,
}) => {
    const broken = path.join(shelf, 'Day one', '299 - Take 299.wav');
    await page.goto(`${octavox.address}/order`);
    fs.renameSync(broken, `${broken}.away`);
    await page.getByRole('button', { name: `Make ${LINES} files` }).click();
    await expect(page.locator('.order-progress')).toContainText(`of ${LINES} done`);
    await expect
        .poll(() => octavox.rows("select count(*) as done from results where state = 'done'")[0].done, { timeout: 60_000 })
        .toBeGreaterThan(20);
    await octavox.kill();
    await octavox.run();
    await page.goto(`${octavox.address}/results`);
    await expect
        .poll(() => octavox.rows("select count(*) as open from results where state in ('waiting', 'making')")[0].open, { timeout: 200_000 })
        .toBe(0);
    await expect(page.locator('.order-progress')).toContainText(`${LINES - 1} of ${LINES} done · 1 failed`);
    fs.renameSync(`${broken}.away`, broken);
    await page.getByRole('button', { name: /try all again that failed/ }).click();
    await expect(page.locator('.order-progress')).toContainText(`${LINES} of ${LINES} done`);
    expect(octavox.results().filter((name) => name.includes('.part'))).toEqual([]);
    expect(octavox.results().filter((name) => name.endsWith('.flac')).length).toBe(LINES);

    // All of them in one ZIP, whole, each once, in its folders; another reader checks every sum.
    const [got] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: /all as one ZIP/ }).click()]);
    const zip = path.join(os.tmpdir(), `octavox-sheet-${process.pid}.zip`);
    await got.saveAs(zip);
    const names = JSON.parse(
        execFileSync(
            'python3',
            [
                '-c',
                'import sys, zipfile, json; z = zipfile.ZipFile(sys.argv[1]); assert z.testzip() is None; print(json.dumps(z.namelist()))',
                zip,
            ],
            { encoding: 'utf8' },
        ),
    );
    expect(new Set(names).size).toBe(LINES);
    expect(names).toContain('Lift day/Rushes of the lift/299 Take 299.flac');
    fs.rmSync(zip);
});

test('what was asked of a result is asked of another source, by a recipe that was saved on the way', async ({ page }) => {
    await page.goto(`${octavox.address}/results`);
    await page.getByRole('button', { name: 'the same for other sources' }).click();
    await expect(page.getByText('The sheet is empty.')).toBeVisible();
    await page.goto(`${octavox.address}/sources?by=name`);
    await page.getByRole('checkbox', { name: 'Choose 005 - Take 5.wav' }).check();
    await page.getByRole('link', { name: 'Put on the order sheet' }).click();
    await expect(page.getByLabel('Make', { exact: true })).toHaveValue('flac');
    await page.getByLabel('Make', { exact: true }).selectOption('mp3');
    await page.getByLabel('Quality').selectOption('kbps:96');
    await expect(page.getByText('encode MP3 at 96 kbit/s').first()).toBeVisible();
    await page.getByText('Save as a recipe').click();
    await page.locator('#recipe-title').fill('Rushes to send');
    await page.getByRole('button', { name: 'Save what is asked' }).click();
    await expect(page.getByLabel('Goes to')).toHaveValue('by:rushes-to-send');
    await page.getByLabel('Channels', { exact: true }).selectOption('mono');
    await expect(page.getByText('Other than the recipe:')).toBeVisible();
    await page.locator('#head [data-renews]').first().click();
    await expect(page.getByText('Other than the recipe:')).toBeHidden();
    await page.goto(`${octavox.address}/recipes`);
    await page.getByRole('link', { name: 'Rushes to send', exact: true }).click();
    await page.getByLabel('Quality').selectOption('kbps:64');
    await expect(page.locator('#try')).toContainText('encode MP3 at 64 kbit/s');
    await page.getByRole('button', { name: 'Keep the changes' }).click();
    // The order asks what it asked.
    await page.goto(`${octavox.address}/order`);
    await expect(page.getByText('encode MP3 at 96 kbit/s').first()).toBeVisible();
    await page.getByLabel('Goes to').selectOption('to:editor-aiff');
    await expect(page.locator('.standing').first()).toHaveText('sound remade');
    await page.getByRole('button', { name: 'Make 1 file' }).click();
    await expect(page.locator('.result').first()).toHaveAttribute('data-state', 'done');
    await expect(page.locator('.result h3').first()).toHaveText(/\.aiff$/);
});
