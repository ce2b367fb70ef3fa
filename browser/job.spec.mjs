// Whole jobs, as a person does them: bring in, look, choose, make, hear, download; the download is decoded and compared.

import { execFileSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import AxeBuilder from '@axe-core/playwright';
import { expect, test } from '@playwright/test';
import { compareInBrowser, demo, noise, Octavox, root, samplesOf } from './octavox.mjs';

let octavox;
let file;

test.describe.configure({ mode: 'serial' });
test.beforeAll(async () => {
    file = demo();
    octavox = await Octavox.start(`Day one=${path.dirname(file('x'))}`);
});
test.afterAll(() => octavox.end());

const bring = async (page, ...paths) => {
    await page.goto(`${octavox.address}/sources`);
    // The same content is not taken in twice.
    const missing = [];
    for (const one of paths) if ((await page.getByRole('link', { name: path.basename(one), exact: true }).count()) === 0) missing.push(one);
    if (missing.length > 0) await page.locator('#files').setInputFiles(missing);
    for (const one of paths) {
        const row = page.locator('tr', { has: page.getByRole('link', { name: path.basename(one), exact: true }) }).first();
        await expect(row).toBeVisible();
        await expect(row).not.toHaveClass(/is-reading/);
    }
};

const order = async (page, ...names) => {
    await page.goto(`${octavox.address}/sources`);
    const another = page.getByRole('button', { name: 'Keep it as a draft, begin another' });
    if (await another.isVisible()) await another.click();
    for (const name of names)
        await page
            .getByRole('checkbox', { name: `Choose ${name}`, exact: true })
            .first()
            .check();
    await expect(page.locator('[data-pick-count]')).toHaveText(String(names.length));
    await page.getByRole('link', { name: 'Put on the order sheet' }).click();
    await expect(page.getByRole('heading', { level: 1, name: 'Order sheet' })).toBeVisible();
};

const download = async (page, name) => {
    const [got] = await Promise.all([
        page.waitForEvent('download'),
        page
            .getByRole('link', { name: `Download ${name}`, exact: true })
            .first()
            .click(),
    ]);
    const to = path.join(os.tmpdir(), `octavox-got-${Date.now()}-${name}`);
    await got.saveAs(to);

    return to;
};

test('a person without anything is told what to do next', async ({ page }) => {
    await page.goto(octavox.address);
    await expect(page.getByText('Nothing has come in yet.')).toBeVisible();
    await page.getByRole('link', { name: 'Order sheet' }).click();
    await expect(page.getByText('The sheet is empty.')).toBeVisible();
    await page.getByRole('link', { name: 'Results' }).click();
    await expect(page.getByText('Nothing was made yet.')).toBeVisible();
});

test('from a video to an MP3: what is downloaded is what went in', async ({ page }) => {
    await bring(page, file('Tour of the lift.mp4'));
    await page.getByRole('link', { name: 'Tour of the lift.mp4' }).click();
    await expect(page.getByRole('cell', { name: /^768,000/ })).toBeVisible();

    const player = page.locator('video');
    await player.evaluate(async (video) => {
        video.muted = true;
        video.currentTime = 9;
        await new Promise((resolve) => {
            video.onseeked = resolve;
        });
        await video.play();
    });
    await expect.poll(() => player.evaluate((video) => video.currentTime)).toBeGreaterThan(9.2);
    expect(await player.evaluate((video) => [video.videoWidth, video.webkitAudioDecodedByteCount > 0])).toEqual([320, true]);

    await page.getByRole('link', { name: 'Put on the order sheet' }).click();
    await page.getByLabel('Make').selectOption('mp3');
    await page.getByLabel('Quality').selectOption('utmost');
    await expect(page.getByText('320 kbit/s, constant')).toBeVisible();
    await expect(page.getByText('Tour of the lift.mp3').first()).toBeVisible();
    await expect(page).toHaveURL(/orders\/\d+$/);
    await page.reload();
    await expect(page.getByText('320 kbit/s, constant')).toBeVisible();

    await page.getByRole('button', { name: 'Make 1 file' }).click();
    const row = page.locator('.result').first();
    await expect(row).toHaveAttribute('data-state', 'done');
    await row.getByText('Hear it, and its receipt').click();
    await expect(row.getByText('read back and decoded')).toBeVisible();
    const sound = row.getByLabel('After', { exact: true });
    expect(
        await row.getByLabel('Before', { exact: true }).evaluate(async (audio) => {
            audio.muted = true;
            await audio.play();
            audio.pause();
            return audio.duration;
        }),
    ).toBeCloseTo(16, 1);
    await sound.evaluate((audio) => {
        audio.muted = true;
        return audio.play();
    });
    await expect.poll(() => sound.evaluate((audio) => audio.currentTime)).toBeGreaterThan(0.2);
    expect(await sound.evaluate((audio) => audio.duration)).toBeCloseTo(16, 1);

    const got = await download(page, 'Tour of the lift.mp3');
    const compared = await compareInBrowser(page, file('Tour of the lift.mp4'), got, 3000);
    expect(compared.channels).toEqual([2, 2]);
    expect(compared.difference).toBeLessThan(-28);
    expect(Math.abs(compared.offset)).toBeLessThan(2);
});

test('from a video to a WAV: as many samples as the track presents', async ({ page }) => {
    await order(page, 'Tour of the lift.mp4');
    await page.getByLabel('Make').selectOption('wav');
    await expect(page.getByText('Tour of the lift.wav').first()).toBeVisible();
    await page.getByRole('button', { name: 'Make 1 file' }).click();
    await expect(page.locator('.result').first()).toHaveAttribute('data-state', 'done');
    const got = await download(page, 'Tour of the lift.wav');
    expect(fs.statSync(got).size).toBeGreaterThan(768000 * 4);
    const compared = await compareInBrowser(page, file('Tour of the lift.mp4'), got, 3000);
    expect(compared.lengths[1]).toBe(768000);
    expect(Math.abs(compared.offset)).toBeLessThan(2);
    expect(compared.difference).toBeLessThan(-60);
});

test('several at once from a shelf, one of them without sound; what is kept is identical', async ({ page }) => {
    await page.goto(`${octavox.address}/shelves`);
    await page.getByLabel('Interview lift keeper.mov').check();
    await page.getByLabel('Memo gate three.m4a').check();
    await page.getByLabel('Lift from the air.mp4').check();
    await page.getByRole('button', { name: 'Take these' }).click();
    await expect(page.getByText('3 files taken from Day one; nothing was copied.')).toBeVisible();
    await expect(page.getByText('being read')).toHaveCount(0);
    await page.getByRole('checkbox', { name: 'Choose Lift from the air.mp4' }).check();
    await page.getByRole('link', { name: 'Put on the order sheet' }).click();
    await expect(page.getByText('This file has no sound').first()).toBeVisible();
    await page.goto(`${octavox.address}/sources`);
    await page.getByRole('button', { name: 'Choose none' }).click();
    await expect(page.locator('#picked')).toBeHidden();
    await page.getByRole('link', { name: 'Stands in the way' }).click();
    await expect(page.getByText('This video has no sound track')).toBeVisible();

    await order(page, 'Interview lift keeper.mov', 'Memo gate three.m4a');
    await page.getByLabel('Make').selectOption('wav');
    await expect(page.locator('.sign-kept')).toHaveCount(1);
    await expect(page.locator('.sign-remade')).toHaveCount(1);
    await page.getByRole('button', { name: 'Make 2 files' }).click();
    await expect(page.locator('.result[data-state=done]')).toHaveCount(2);
    const got = await download(page, 'Interview lift keeper.wav');
    const compared = await compareInBrowser(page, file('Interview lift keeper.mov'), got);
    expect(compared.lengths[0]).toBe(compared.lengths[1]);
    expect(compared.difference).toBeLessThan(-180);
});

test('sound that ends early is made as long as its picture', async ({ page }) => {
    await bring(page, file('Interview lift keeper.mov'));
    await order(page, 'Interview lift keeper.mov');
    await page.getByLabel('Make').selectOption('wav');
    await page.getByLabel('Length').selectOption('picture');
    await page.getByLabel('Name', { exact: true }).fill('{stem} in step');
    await expect(page.getByText('Interview lift keeper in step.wav').first()).toBeVisible();
    await expect(page.getByText('of silence at the end, as long as the picture')).toBeVisible();
    await page.getByRole('button', { name: 'Make 1 file' }).click();
    await expect(page.locator('.result').first()).toHaveAttribute('data-state', 'done');
    const got = fs.readFileSync(await download(page, 'Interview lift keeper in step.wav'));
    // 18 seconds of stereo with 16 bits; the last tenth of a second is silent.
    const frames = got.subarray(got.indexOf('data') + 8);
    expect(frames.length).toBe(864000 * 4);
    expect(frames.subarray(-4800 * 4).every((byte) => byte === 0)).toBe(true);
    expect(frames.subarray(0, 4800 * 4).every((byte) => byte === 0)).toBe(false);
});

test('the commentary of an MKV becomes Opus, decoded by the browser; what is kept of it is identical', async ({ page }) => {
    await bring(page, file('Opening ceremony.mkv'));
    await page.getByRole('link', { name: 'Opening ceremony.mkv' }).click();
    await expect(page.getByText('The speech')).toBeVisible();
    await expect(page.getByText('There are 2 sound tracks')).toBeVisible();
    await page.getByRole('link', { name: 'Put on the order sheet' }).click();
    await page.getByLabel('Make').selectOption('opus');
    await page.getByLabel('Sound track').selectOption('3');
    await expect(page.getByText('the Opus sound is copied untouched')).toBeVisible();
    await page.getByRole('button', { name: 'Make 1 file' }).click();
    await expect(page.locator('.result').first()).toHaveAttribute('data-state', 'done');
    const kept = await download(page, 'Opening ceremony.opus');

    await order(page, 'Opening ceremony.mkv');
    await page.getByLabel('Make').selectOption('wav');
    await page.getByLabel('Sound track').selectOption('3');
    await expect(page.getByText('decode Opus')).toBeVisible();
    await page.getByRole('button', { name: 'Make 1 file' }).click();
    await expect(page.locator('.result').first()).toHaveAttribute('data-state', 'done');
    const compared = await compareInBrowser(page, kept, await download(page, 'Opening ceremony.wav'));
    expect(compared.lengths).toEqual([672000, 672000]);
    expect(compared.difference).toBeLessThan(-60);
});

test('a capture of a disc camcorder becomes an MP4 that the browser plays, picture and sound', async ({ page }) => {
    await bring(page, file('Steam day capture.m2ts'));
    await order(page, 'Steam day capture.m2ts');
    await page.getByLabel('Make').selectOption('mp4');
    await expect(page.getByText('the H.264 picture is copied untouched')).toBeVisible();
    await page.getByRole('button', { name: 'Make 1 file' }).click();
    const row = page.locator('.result').first();
    await expect(row).toHaveAttribute('data-state', 'done');
    await row.getByText('Hear it, and its receipt').click();
    const video = row.locator('video');
    await video.evaluate((video) => {
        video.muted = true;
        return video.play();
    });
    await expect.poll(() => video.evaluate((video) => video.currentTime)).toBeGreaterThan(0.3);
    expect(
        await video.evaluate((video) => [
            video.videoWidth,
            video.videoHeight,
            video.webkitVideoDecodedByteCount > 0,
            video.webkitAudioDecodedByteCount > 0,
        ]),
    ).toEqual([320, 192, true, true]);
    expect(await video.evaluate((video) => video.duration)).toBeCloseTo(12.1, 0);
    await download(page, 'Steam day capture.mp4');
});

test('a video in MKV becomes a MOV whose sound is uncompressed', async ({ page }) => {
    await order(page, 'Opening ceremony.mkv');
    await page.getByLabel('Make').selectOption('mov');
    await page.getByRole('combobox', { name: 'Sound', exact: true }).selectOption('wav');
    await page.getByLabel('Bit depth').selectOption('24');
    await expect(page.getByText('sound track 3: decode Opus, dither to 24 bits, write 24-bit PCM')).toBeVisible();
    await page.getByRole('button', { name: 'Make 1 file' }).click();
    await expect(page.locator('.result').first()).toHaveAttribute('data-state', 'done');
    const got = await download(page, 'Opening ceremony.mov');
    expect(fs.statSync(got).size).toBeGreaterThan(672000 * 3 * 8);
});

test('what the browser itself recorded is read and made into FLAC', async ({ page }) => {
    await page.goto(`${octavox.address}/sources`);
    const { recorded, took: lasted } = await page.evaluate(async () => {
        const context = new AudioContext({ sampleRate: 48000 });
        await context.resume();
        const tone = new OscillatorNode(context, { frequency: 440 });
        const target = context.createMediaStreamDestination();
        tone.connect(target);
        tone.start();
        const recorder = new MediaRecorder(target.stream, { mimeType: 'audio/webm;codecs=opus' });
        const parts = [];
        recorder.ondataavailable = (event) => parts.push(event.data);
        const stopped = new Promise((resolve) => {
            recorder.onstop = resolve;
        });
        const began = performance.now();
        recorder.start(200);
        await new Promise((resolve) => {
            tone.onended = resolve;
            tone.stop(context.currentTime + 1.5);
        });
        recorder.stop();
        await stopped;
        const took = (performance.now() - began) / 1000;

        return { recorded: [...new Uint8Array(await new Blob(parts).arrayBuffer())], took };
    });
    const took = path.join(os.tmpdir(), `octavox-recorded-${Date.now()}.webm`);
    fs.writeFileSync(took, Buffer.from(recorded));
    await bring(page, took);
    await page.getByRole('link', { name: path.basename(took) }).click();
    await expect(page.getByRole('cell', { name: 'Opus' })).toBeVisible();
    await page.getByRole('link', { name: 'Put on the order sheet' }).click();
    await page.getByLabel('Make').selectOption('flac');
    await expect(page.getByText('decode Opus')).toBeVisible();
    await page.getByRole('button', { name: 'Make 1 file' }).click();
    await expect(page.locator('.result').first()).toHaveAttribute('data-state', 'done');
    const got = await download(page, path.basename(took).replace('.webm', '.flac'));
    const lasting = (bytes) =>
        page.evaluate(
            async (all) => (await new AudioContext({ sampleRate: 48000 }).decodeAudioData(new Uint8Array(all).buffer)).duration,
            bytes,
        );
    const seconds = await lasting([...fs.readFileSync(got)]);
    expect(seconds).toBeGreaterThan(1.2);
    // No less than all packets that the browser itself decodes, and no more than it recorded: where it was slow, it left gaps.
    expect(seconds).toBeGreaterThan((await lasting(recorded)) - 0.05);
    expect(seconds).toBeLessThan(lasted + 0.2);
});

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
    await bring(page, long);
    const chunk = 8 * 1024 * 1024;
    expect(offsets).toEqual([0, chunk, chunk, 2 * chunk]);
    await expect(page.getByText('16-bit PCM, stereo, 48 kHz').first()).toBeVisible();
});

test('what is being made can be watched, cancelled and begun again', async ({ page }) => {
    await order(page, 'Long take.wav');
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
    await order(page, 'Long take.wav');
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
    const ended = new Promise((resolve) => octavox.process.once('exit', resolve));
    octavox.process.kill('SIGKILL');
    octavox.parts('.').forEach((part) => {
        try {
            process.kill(part, 'SIGKILL');
        } catch {
            /* gone already */
        }
    });
    await ended;
    expect(octavox.results().filter((name) => name.endsWith('survives.mp3'))).toEqual([]);
    await octavox.run();
    await page.goto(`${octavox.address}/results`);
    await expect(row).toHaveAttribute('data-state', 'done', { timeout: 200_000 });
    expect(octavox.results().filter((name) => name.includes('.part'))).toEqual([]);
    const got = await download(page, 'Long take survives.mp3');
    expect(fs.statSync(got).size).toBeGreaterThan(110 * 24000);
});

test('what is no media file is refused in one sentence', async ({ page }) => {
    const notes = path.join(os.tmpdir(), 'Notes.mp4');
    fs.writeFileSync(notes, 'Bring the long microphone.\n');
    await bring(page, notes);
    await expect(page.getByText('This is text, not a recording')).toBeVisible();
    await expect(page.getByRole('checkbox', { name: 'Choose Notes.mp4' })).toBeDisabled();
});

test('two microphones are heard, split by one press, named and made; each file is its side to the sample', async ({ page }) => {
    await bring(page, file('Interview lift keeper.mov'));
    await page.getByRole('link', { name: 'Interview lift keeper.mov' }).first().click();
    await expect(page.getByText(/two microphones and no stereo image/)).toBeVisible();
    await page.getByRole('link', { name: 'Split them into two mono files' }).click();
    await page.getByLabel('Labels of the channels').fill('lav, boom');
    await page.getByLabel('Labels of the channels').blur();
    await expect(page.getByRole('heading', { name: 'Interview lift keeper boom.wav' }).first()).toBeVisible();
    await page.getByRole('button', { name: 'Make 2 files' }).click();
    await expect(page.locator('.result[data-state=done]')).toHaveCount(2);
    const [lav, boom] = [
        samplesOf(await download(page, 'Interview lift keeper lav.wav')),
        samplesOf(await download(page, 'Interview lift keeper boom.wav')),
    ];
    await order(page, 'Interview lift keeper.mov');
    await page.getByRole('button', { name: 'Make 1 file' }).click();
    await expect(page.locator('.result[data-state=done]')).toHaveCount(1);
    const both = samplesOf(await download(page, 'Interview lift keeper.wav'));
    expect([lav.channels, boom.channels, both.channels]).toEqual([1, 1, 2]);
    expect([lav.values.length, boom.values.length]).toEqual([both.values.length / 2, both.values.length / 2]);
    expect(lav.values.every((value, index) => value === both.values[2 * index])).toBe(true);
    expect(boom.values.every((value, index) => value === both.values[2 * index + 1])).toBe(true);
});

test('the channel map by keyboard: joined, softer, flipped, parted', async ({ page }) => {
    await page.goto(`${octavox.address}/sources`);
    await order(page, 'Interview lift keeper.mov');
    const press = async (name, ...keys) => {
        await page.getByRole('group', { name: 'Channel map' }).getByRole('button', { name }).focus();
        for (const key of keys) await page.keyboard.press(key);
    };
    await press('R coming in', 'Enter');
    await press(/^L going out/, 'Enter');
    await expect(page.getByLabel('Channels', { exact: true })).toHaveValue('1+2,2');
    await press('R to L, 0 dB', '-', '-', '-', 'f');
    await expect(page.getByLabel('Channels', { exact: true })).toHaveValue('1+-2@-3,2');
    await press('R to R, 0 dB', 'Delete');
    await expect(page.getByLabel('Channels', { exact: true })).toHaveValue('1+-2@-3,0');
    await expect(page.getByText('L+−R, silence to stereo').first()).toBeVisible();
    await page.getByLabel('Channels', { exact: true }).selectOption('swap');
    await expect(page.getByRole('group', { name: 'Channel map' }).getByRole('button', { name: 'R to L, 0 dB' })).toBeVisible();
    await expect(page.getByText('R, L to stereo')).toBeVisible();
    await page.reload();
    await expect(page.getByText('R, L to stereo')).toBeVisible();
});

test('a piece is cut by keyboard, undone, done again, made after a reload, and holds the very samples', async ({ page }) => {
    await bring(page, noise(12, path.join(os.tmpdir(), `octavox-pieces-${process.pid}.wav`)));
    const name = `octavox-pieces-${process.pid}.wav`;
    const whole = samplesOf(path.join(os.tmpdir(), name));
    await page.getByRole('link', { name }).first().click();
    const waveforms = page.getByRole('application');
    await expect(waveforms).toHaveAttribute('data-drawn', String(12 * 48000));
    await waveforms.focus();
    const begin = page.getByLabel('Begin', { exact: true });
    const end = page.getByLabel('End', { exact: true });
    await begin.fill('2');
    await begin.press('Enter');
    await end.fill('5.5');
    await end.press('Enter');
    await waveforms.focus();
    await page.keyboard.press('ArrowLeft');
    await page.keyboard.press('Alt+ArrowRight');
    await expect(end).toHaveValue('0:05.490');
    await page.keyboard.press('p');
    await begin.fill('3');
    await begin.press('Enter');
    await end.fill('4');
    await end.press('Enter');
    await waveforms.focus();
    await page.keyboard.press('x');
    await expect(page.locator('[data-total]')).toHaveText('0:02.490 in 2');
    await page.keyboard.press('u');
    await expect(page.locator('[data-total]')).toHaveText('0:03.490');
    await page.keyboard.press('r');
    await expect(page.locator('[data-total]')).toHaveText('0:02.490 in 2');
    await page.reload();
    await expect(page.locator('[data-total]')).toHaveText('0:02.490 in 2');
    await expect(page.getByRole('button', { name: 'Undo' })).toBeEnabled();

    // Each channel alone, the join of two pieces, and playing on from anywhere.
    await page.getByRole('button', { name: 'R', exact: true }).click();
    await expect(page.getByRole('button', { name: 'R', exact: true })).toHaveAttribute('aria-pressed', 'false');
    await page.getByRole('application').focus();
    await page.keyboard.press('Shift+2');
    await expect(page.getByRole('button', { name: 'L', exact: true })).toHaveAttribute('aria-pressed', 'false');
    await expect(page.getByRole('button', { name: 'R', exact: true })).toHaveAttribute('aria-pressed', 'true');
    await page.keyboard.press('Shift+2');
    await expect(page.getByRole('button', { name: 'L', exact: true })).toHaveAttribute('aria-pressed', 'true');
    await page.keyboard.press('n');
    await expect(page.locator('[data-listen]')).toHaveAttribute('data-playing', '1');
    await expect.poll(async () => page.locator('[data-place]').textContent()).toMatch(/^0:0[2345]/);
    await page.getByRole('button', { name: 'Stop' }).click();
    await expect(page.locator('[data-listen]')).not.toHaveAttribute('data-playing', '1');

    await page.getByRole('link', { name: 'Put the pieces on the order sheet' }).click();
    await expect(page.getByText('2 pieces, 0:02.490 together')).toBeVisible();
    await page.getByRole('button', { name: 'Make 1 file' }).click();
    await expect(page.locator('.result[data-state=done]')).toHaveCount(1);
    const made = samplesOf(await download(page, name));
    const frames = [...Array(48000).keys()]
        .map((index) => 96000 + index)
        .concat([...Array(263521 - 192000).keys()].map((index) => 192000 + index));
    expect(made.values.length).toBe(2 * frames.length);
    expect(
        frames.every(
            (frame, index) =>
                made.values[2 * index] === whole.values[2 * frame] && made.values[2 * index + 1] === whole.values[2 * frame + 1],
        ),
    ).toBe(true);
});

test('sound that no browser plays is heard at once from anywhere, and what was set is measured before and after', async ({ page }) => {
    await bring(page, file('Steam day capture.m2ts'));
    await page.getByRole('link', { name: 'Steam day capture.m2ts' }).first().click();
    await expect(page.getByRole('application')).toHaveAttribute('data-drawn', /\d/);
    const box = await page.locator('[data-canvas="0"]').boundingBox();
    await page.mouse.click(box.x + box.width * 0.6, box.y + box.height / 2);
    await page.getByRole('button', { name: 'Play', exact: true }).click();
    const from = await page.locator('[data-place]').textContent();
    await expect.poll(async () => page.locator('[data-place]').textContent()).not.toBe(from);
    await page.getByRole('button', { name: 'Stop' }).click();

    await page.getByRole('link', { name: 'Put on the order sheet' }).click();
    await page.getByLabel('Make', { exact: true }).selectOption('flac');
    await page.getByLabel('Level', { exact: true }).selectOption('lufs');
    await page.getByLabel('Level in LUFS').fill('-23');
    await page.getByLabel('Level in LUFS').blur();
    await expect(page.getByText(/loudness at -23.0 LUFS/).first()).toBeVisible();
    await page.getByRole('button', { name: 'Make 1 file' }).click();
    await expect(page.locator('.result[data-state=done]')).toHaveCount(1);
    await page.getByText('Hear it, and its receipt').click();
    await expect(page.locator('.before-after section').nth(1).getByText('-23.0 LUFS')).toBeVisible();
    await expect
        .poll(async () =>
            page
                .locator('.before-after img')
                .nth(1)
                .evaluate((image) => image.naturalWidth),
        )
        .toBeGreaterThan(0);
});

test('the whole job by keyboard alone', async ({ page }) => {
    await page.goto(`${octavox.address}/sources`);
    const reach = async (locator) => {
        for (let steps = 0; steps < 60; steps += 1) {
            if (await locator.evaluate((element) => element === document.activeElement)) return;
            await page.keyboard.press('Tab');
        }
        throw new Error('not reached by the Tab key');
    };
    const another = page.getByRole('button', { name: 'Keep it as a draft, begin another' });
    if (await another.isVisible()) {
        await reach(another);
        await page.keyboard.press('Enter');
        await expect(another).toBeHidden();
    }
    await reach(page.getByRole('checkbox', { name: 'Choose Memo gate three.m4a' }));
    await page.keyboard.press('Space');
    await expect(page.locator('[data-pick-count]')).toHaveText('1');
    await reach(page.getByRole('link', { name: 'Put on the order sheet' }));
    await page.keyboard.press('Enter');
    await reach(page.getByLabel('Make'));
    await page.keyboard.type('MP3');
    await expect(page.getByLabel('Make')).toHaveValue('mp3');
    await expect(page.getByLabel('Quality')).toBeVisible();
    await reach(page.getByRole('button', { name: 'Make 1 file' }));
    await page.keyboard.press('Enter');
    await expect(page.locator('.result').first()).toHaveAttribute('data-state', 'done');
});

test('every view can be used by everyone and fits a narrow window', async ({ page }) => {
    await page.goto(`${octavox.address}/sources`);
    const [source] = await page.locator('tr[data-source]').evaluateAll((rows) => rows.map((row) => row.dataset.source).slice(-1));
    for (const view of [
        '/sources',
        `/sources/${source}`,
        `/order?sources=${source},999&format=mp3`,
        `/order?sources=${source}&format=wav&layout=split&labels=lav,boom&level=lufs:-16`,
        '/orders',
        '/results',
        '/shelves',
        '/settings',
        '/standing',
        '/nowhere',
    ]) {
        await page.setViewportSize({ width: 1280, height: 800 });
        await page.goto(octavox.address + view);
        const { violations } = await new AxeBuilder({ page })
            .options({
                runOnly: { type: 'tag', values: ['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa'] },
                rules: {
                    'label-content-name-mismatch': { enabled: true },
                    'empty-table-header': { enabled: true },
                    'target-size': { enabled: true },
                },
            })
            .analyze();
        expect(violations.map((violation) => [view, violation.id, violation.nodes.map((node) => node.html.slice(0, 120))])).toEqual([]);
        await page.setViewportSize({ width: 380, height: 700 });
        expect(await page.evaluate(() => document.documentElement.scrollWidth), view).toBeLessThanOrEqual(380);
    }
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

test('a button stays under the pointer and in focus while its row is renewed', async ({ page }) => {
    await order(page, 'Long take.wav');
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
    await bring(page, replicated, six, memo, rehearsal, capture);
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

test('what is kept, remade and cut begins and ends in the browser where it should, to the sample', async ({ page }) => {
    const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'octavox-step-'));
    const make = (source, into, ...wish) =>
        JSON.parse(
            execFileSync(path.join(root, 'octavox'), ['make', source, '--into', path.join(folder, into), '--json', ...wish], {
                encoding: 'utf8',
            }),
        ).results[0];
    await page.goto(`${octavox.address}/sources`);
    const video = file('Tour of the lift.mp4');
    const wave = make(video, 'wave', '--format', 'wav').path;
    for (const format of ['wav', 'flac', 'mp3', 'aac', 'opus', 'vorbis']) {
        const whole = make(wave, format, '--format', format);
        const remade = await compareInBrowser(page, wave, whole.path, 1200);
        expect([format, remade.offset, remade.lengths[1] - remade.lengths[0]]).toEqual([format, 0, 0]);
        // Into a container again, untouched: nothing moves.
        const kept = make(whole.path, `${format} kept`, '--format', format);
        expect(kept.action).toBe('kept');
        const again = await compareInBrowser(page, whole.path, kept.path, 1200);
        expect([format, again.offset, again.lengths[1] - again.lengths[0]]).toEqual([format, 0, 0]);
        // A piece of it, kept, against the same piece of the samples that the browser decodes of the whole.
        const piece = make(whole.path, `${format} piece`, '--format', format, '--pieces', '2.5-7.25');
        expect(piece.action).toBe('kept');
        const cut = await page.evaluate(
            async ([a, b, from, early]) => {
                const decode = async (text) =>
                    new OfflineAudioContext(2, 48000, 48000).decodeAudioData(
                        Uint8Array.from(atob(text), (letter) => letter.charCodeAt(0)).buffer,
                    );
                const [x, y] = [await decode(a), await decode(b)];
                const [one, two] = [x.getChannelData(0), y.getChannelData(0)];
                const differs = (offset) => {
                    let [sound, difference] = [0, 0];
                    for (let at = 20_000; at < 60_000; at += 3) {
                        sound += one[from + at] ** 2;
                        difference += (one[from + at] - two[at + offset]) ** 2;
                    }

                    return 10 * Math.log10(difference / sound + 1e-20);
                };
                let best = 0;
                for (let offset = -2400; offset <= 2400; offset += 1) if (differs(offset) < differs(best)) best = offset;

                return { offset: best, difference: differs(best), length: y.length, early };
            },
            [fs.readFileSync(whole.path).toString('base64'), fs.readFileSync(piece.path).toString('base64'), 2.5 * 48000],
        );
        expect(cut.difference).toBeLessThan(-25);
        // Where the file can say it, the piece is exact; where not, the plan says how much earlier it begins.
        const said = piece.steps.join(' ').match(/begins ([\d.]+) ms early/);
        expect(Math.abs(cut.offset - (said ? Number(said[1]) * 48 : 0))).toBeLessThan(said ? 60 : 1);
        expect(cut.length).toBe(piece.samples);
    }
    fs.rmSync(folder, { recursive: true, force: true });
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

test('a cover that is dropped is in what is downloaded, smaller; what the encoder is told stays open, and holds', async ({ page }) => {
    await order(page, 'Tour of the lift.mp4');
    await page.getByLabel('Make').selectOption('mp3');
    await page.getByLabel('Quality').selectOption('kbps:128');
    // A press is lost where the part is renewed between its two halves.
    const stereo = page.getByLabel('Stereo', { exact: true });
    await expect(async () => {
        if (!(await stereo.isVisible())) await page.getByText('Encoder: as usual').click();
        await expect(stereo).toBeVisible({ timeout: 1000 });
    }).toPass();
    await stereo.selectOption('separate');
    await expect(page.getByText('Encoder: separate stereo')).toBeVisible();
    await page.getByLabel('Bit rate held').selectOption('average');
    await expect(page.getByText('Encoder: average bit rate, separate stereo')).toBeVisible();
    await page.getByLabel('Length', { exact: true }).selectOption('time');
    await page.getByLabel('Length, like 0:30 or 62.5').fill('0:04.5');
    await page.keyboard.press('Tab');
    await expect(page.getByText('0:04.5 ·').first()).toBeVisible();

    // A picture that the browser draws, dropped as a file is.
    await page.getByText('Cover of the result').click();
    await page.evaluate(async () => {
        const canvas = Object.assign(document.createElement('canvas'), { width: 900, height: 600 });
        canvas.getContext('2d').fillRect(100, 100, 400, 300);
        const picture = await new Promise((resolve) => {
            canvas.toBlob(resolve, 'image/png');
        });
        const transfer = new DataTransfer();
        transfer.items.add(new File([picture], 'lift.png', { type: 'image/png' }));
        const form = document.querySelector('[data-cover]');
        form.elements.side.value = '600';
        for (const type of ['dragover', 'drop'])
            form.dispatchEvent(new DragEvent(type, { bubbles: true, cancelable: true, dataTransfer: transfer }));
    });
    await expect(page.getByText('The results get this cover.')).toBeVisible();
    await expect(page.locator('.cover-choice img')).toBeAttached();
    await page.getByRole('button', { name: 'Make 1 file' }).click();
    await expect(page.locator('.result').first()).toHaveAttribute('data-state', 'done');
    const bytes = fs.readFileSync(await download(page, 'Tour of the lift.mp3'));
    const at = bytes.indexOf('APIC');
    const begins = bytes.indexOf(Buffer.from([0xff, 0xd8, 0xff]), at);
    expect(at).toBeGreaterThan(0);
    const seen = await page.evaluate(
        async ([picture, sound]) => {
            const raw = (text) => Uint8Array.from(atob(text), (letter) => letter.charCodeAt(0));
            const image = await createImageBitmap(new Blob([raw(picture)], { type: 'image/jpeg' }));
            const heard = await new OfflineAudioContext(2, 48000, 48000).decodeAudioData(raw(sound).buffer);

            return [image.width, image.height, heard.length];
        },
        [bytes.subarray(begins, begins + bytes.readUInt32BE(at + 4)).toString('base64'), bytes.toString('base64')],
    );
    expect(seen).toEqual([600, 400, 216000]);
    // No frame of it is coded jointly, and not all are of one length.
    const modes = new Set();
    const kbps = new Set();
    let frame = begins + bytes.subarray(begins).lastIndexOf(Buffer.from([0xff, 0xd9])) + 2;
    for (frame = bytes.indexOf(Buffer.from([0xff, 0xfb]), frame); frame >= 0 && frame + 4 < bytes.length && bytes[frame] === 0xff; ) {
        const rate = [0, 32, 40, 48, 56, 64, 80, 96, 112, 128, 160, 192, 224, 256, 320][bytes[frame + 2] >> 4];
        modes.add(bytes[frame + 3] >> 6);
        kbps.add(rate);
        frame += Math.floor((144 * rate * 1000) / 48000) + ((bytes[frame + 2] >> 1) & 1);
    }
    expect([...modes]).toEqual([0]);
    expect(kbps.size).toBeGreaterThan(1);
});

test('the work is paused from any page, waits, goes on, and every page says what came of it', async ({ page, context }) => {
    await bring(page, file('Tour of the lift.mp4'), file('Interview lift keeper.mov'));
    await order(page, 'Tour of the lift.mp4', 'Interview lift keeper.mov');
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
