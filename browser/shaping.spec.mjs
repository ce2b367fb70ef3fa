// Sound as it is heard and shaped: channels, pieces, levels, covers.

import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { expect, test } from '@playwright/test';
import { demo, noise, Octavox, samplesOf } from './octavox.mjs';

let octavox;
let file;

test.describe.configure({ mode: 'serial' });
test.beforeAll(async () => {
    file = demo();
    octavox = await Octavox.start(`Day one=${path.dirname(file('x'))}`);
});
test.afterAll(() => octavox.end());

test('two microphones are heard, split by one press, named and made; each file is its side to the sample', async ({ page }) => {
    await octavox.bring(page, file('Interview lift keeper.mov'));
    await page.getByRole('link', { name: 'Interview lift keeper.mov' }).first().click();
    await expect(page.getByText(/two microphones and no stereo image/)).toBeVisible();
    await page.getByRole('link', { name: 'Split them into two mono files' }).click();
    await page.getByLabel('Labels of the channels').fill('lav, boom');
    await page.getByLabel('Labels of the channels').blur();
    await expect(page.getByRole('heading', { name: 'Interview lift keeper boom.wav' }).first()).toBeVisible();
    await page.getByRole('button', { name: 'Make 2 files' }).click();
    await expect(page.locator('.result[data-state=done]')).toHaveCount(2);
    const [lav, boom] = [
        samplesOf(await octavox.download(page, 'Interview lift keeper lav.wav')),
        samplesOf(await octavox.download(page, 'Interview lift keeper boom.wav')),
    ];
    await octavox.order(page, 'Interview lift keeper.mov');
    await page.getByRole('button', { name: 'Make 1 file' }).click();
    await expect(page.locator('.result[data-state=done]')).toHaveCount(1);
    const both = samplesOf(await octavox.download(page, 'Interview lift keeper.wav'));
    expect([lav.channels, boom.channels, both.channels]).toEqual([1, 1, 2]);
    expect([lav.values.length, boom.values.length]).toEqual([both.values.length / 2, both.values.length / 2]);
    expect(lav.values.every((value, index) => value === both.values[2 * index])).toBe(true);
    expect(boom.values.every((value, index) => value === both.values[2 * index + 1])).toBe(true);
});

test('the channel map by keyboard: joined, softer, flipped, parted', async ({ page }) => {
    await page.goto(`${octavox.address}/sources`);
    await octavox.order(page, 'Interview lift keeper.mov');
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
    await octavox.bring(page, noise(12, path.join(os.tmpdir(), `octavox-pieces-${process.pid}.wav`)));
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
    const made = samplesOf(await octavox.download(page, name));
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
    await octavox.bring(page, file('Steam day capture.m2ts'));
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
    await octavox.bring(page, file('Memo gate three.m4a'));
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

test('a cover that is dropped is in what is downloaded, smaller; what the encoder is told stays open, and holds', async ({ page }) => {
    await octavox.bring(page, file('Tour of the lift.mp4'));
    await octavox.order(page, 'Tour of the lift.mp4');
    await page.getByLabel('Make').selectOption('mp3');
    await page.getByLabel('Quality').selectOption('kbps:128');
    await page.getByText('Encoder: as usual').click();
    const stereo = page.getByLabel('Stereo', { exact: true });
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
    const bytes = fs.readFileSync(await octavox.download(page, 'Tour of the lift.mp3'));
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
