// Whole jobs, as a person does them: bring in, choose, make, download; the download is decoded and compared.

import { execFileSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { expect, test } from '@playwright/test';
import { compareInBrowser, demo, Octavox, root } from './octavox.mjs';

let octavox;
let file;

test.describe.configure({ mode: 'serial' });
test.beforeAll(async () => {
    file = demo();
    octavox = await Octavox.start(`Day one=${path.dirname(file('x'))}`);
});
test.afterAll(() => octavox.end());

test('a person without anything is told what to do next', async ({ page }) => {
    await page.goto(octavox.address);
    await expect(page.getByText('Nothing has come in yet.')).toBeVisible();
    await page.getByRole('link', { name: 'Order sheet' }).click();
    await expect(page.getByText('The sheet is empty.')).toBeVisible();
    await page.getByRole('link', { name: 'Results' }).click();
    await expect(page.getByText('Nothing was made yet.')).toBeVisible();
});

test('from a video to an MP3: what is downloaded is what went in', async ({ page }) => {
    await octavox.bring(page, file('Tour of the lift.mp4'));
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

    const got = await octavox.download(page, 'Tour of the lift.mp3');
    const compared = await compareInBrowser(page, file('Tour of the lift.mp4'), got, 3000);
    expect(compared.channels).toEqual([2, 2]);
    expect(compared.difference).toBeLessThan(-28);
    expect(Math.abs(compared.offset)).toBeLessThan(2);
});

test('from a video to a WAV: as many samples as the track presents', async ({ page }) => {
    await octavox.order(page, 'Tour of the lift.mp4');
    await page.getByLabel('Make').selectOption('wav');
    await expect(page.getByText('Tour of the lift.wav').first()).toBeVisible();
    await page.getByRole('button', { name: 'Make 1 file' }).click();
    await expect(page.locator('.result').first()).toHaveAttribute('data-state', 'done');
    const got = await octavox.download(page, 'Tour of the lift.wav');
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

    await octavox.order(page, 'Interview lift keeper.mov', 'Memo gate three.m4a');
    await page.getByLabel('Make').selectOption('wav');
    await expect(page.locator('.sign-kept')).toHaveCount(1);
    await expect(page.locator('.sign-remade')).toHaveCount(1);
    await page.getByRole('button', { name: 'Make 2 files' }).click();
    await expect(page.locator('.result[data-state=done]')).toHaveCount(2);
    const got = await octavox.download(page, 'Interview lift keeper.wav');
    const compared = await compareInBrowser(page, file('Interview lift keeper.mov'), got);
    expect(compared.lengths[0]).toBe(compared.lengths[1]);
    expect(compared.difference).toBeLessThan(-180);
});

test('sound that ends early is made as long as its picture', async ({ page }) => {
    await octavox.bring(page, file('Interview lift keeper.mov'));
    await octavox.order(page, 'Interview lift keeper.mov');
    await page.getByLabel('Make').selectOption('wav');
    await page.getByLabel('Length').selectOption('picture');
    await page.getByLabel('Name', { exact: true }).fill('{stem} in step');
    await expect(page.getByText('Interview lift keeper in step.wav').first()).toBeVisible();
    await expect(page.getByText('of silence at the end, as long as the picture')).toBeVisible();
    await page.getByRole('button', { name: 'Make 1 file' }).click();
    await expect(page.locator('.result').first()).toHaveAttribute('data-state', 'done');
    const got = fs.readFileSync(await octavox.download(page, 'Interview lift keeper in step.wav'));
    // 18 seconds of stereo with 16 bits; the last tenth of a second is silent.
    const frames = got.subarray(got.indexOf('data') + 8);
    expect(frames.length).toBe(864000 * 4);
    expect(frames.subarray(-4800 * 4).every((byte) => byte === 0)).toBe(true);
    expect(frames.subarray(0, 4800 * 4).every((byte) => byte === 0)).toBe(false);
});

test('the commentary of an MKV becomes Opus, decoded by the browser; what is kept of it is identical', async ({ page }) => {
    await octavox.bring(page, file('Opening ceremony.mkv'));
    await page.getByRole('link', { name: 'Opening ceremony.mkv' }).click();
    await expect(page.getByText('The speech')).toBeVisible();
    await expect(page.getByText('There are 2 sound tracks')).toBeVisible();
    await page.getByRole('link', { name: 'Put on the order sheet' }).click();
    await page.getByLabel('Make').selectOption('opus');
    await page.getByLabel('Sound track').selectOption('3');
    await expect(page.getByText('the Opus sound is copied untouched')).toBeVisible();
    await page.getByRole('button', { name: 'Make 1 file' }).click();
    await expect(page.locator('.result').first()).toHaveAttribute('data-state', 'done');
    const kept = await octavox.download(page, 'Opening ceremony.opus');

    await octavox.order(page, 'Opening ceremony.mkv');
    await page.getByLabel('Make').selectOption('wav');
    await page.getByLabel('Sound track').selectOption('3');
    await expect(page.getByText('decode Opus')).toBeVisible();
    await page.getByRole('button', { name: 'Make 1 file' }).click();
    await expect(page.locator('.result').first()).toHaveAttribute('data-state', 'done');
    const compared = await compareInBrowser(page, kept, await octavox.download(page, 'Opening ceremony.wav'));
    expect(compared.lengths).toEqual([672000, 672000]);
    expect(compared.difference).toBeLessThan(-60);
});

test('a capture of a disc camcorder becomes an MP4 that the browser plays, picture and sound', async ({ page }) => {
    await octavox.bring(page, file('Steam day capture.m2ts'));
    await octavox.order(page, 'Steam day capture.m2ts');
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
    await octavox.download(page, 'Steam day capture.mp4');
});

test('a video in MKV becomes a MOV whose sound is uncompressed', async ({ page }) => {
    await octavox.order(page, 'Opening ceremony.mkv');
    await page.getByLabel('Make').selectOption('mov');
    await page.getByRole('combobox', { name: 'Sound', exact: true }).selectOption('wav');
    await page.getByLabel('Bit depth').selectOption('24');
    await expect(page.getByText('sound track 3: decode Opus, dither to 24 bits, write 24-bit PCM')).toBeVisible();
    await page.getByRole('button', { name: 'Make 1 file' }).click();
    await expect(page.locator('.result').first()).toHaveAttribute('data-state', 'done');
    const got = await octavox.download(page, 'Opening ceremony.mov');
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
    await octavox.bring(page, took);
    await page.getByRole('link', { name: path.basename(took) }).click();
    await expect(page.getByRole('cell', { name: 'Opus' })).toBeVisible();
    await page.getByRole('link', { name: 'Put on the order sheet' }).click();
    await page.getByLabel('Make').selectOption('flac');
    await expect(page.getByText('decode Opus')).toBeVisible();
    await page.getByRole('button', { name: 'Make 1 file' }).click();
    await expect(page.locator('.result').first()).toHaveAttribute('data-state', 'done');
    const got = await octavox.download(page, path.basename(took).replace('.webm', '.flac'));
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

test('what is no media file is refused in one sentence', async ({ page }) => {
    const notes = path.join(os.tmpdir(), 'Notes.mp4');
    fs.writeFileSync(notes, 'Bring the long microphone.\n');
    await octavox.bring(page, notes);
    await expect(page.getByText('This is text, not a recording')).toBeVisible();
    await expect(page.getByRole('checkbox', { name: 'Choose Notes.mp4' })).toBeDisabled();
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
