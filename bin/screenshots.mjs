// Refreshes docs/screenshots from a running `./octavox demo` on a fresh home: node bin/screenshots.mjs http://localhost:8080
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { chromium } from 'playwright-core';

const address = process.argv[2] ?? 'http://localhost:8080';
const folder = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '../docs/screenshots');
const browser = await chromium.launch({
    executablePath: process.env.CHROMIUM || '/usr/bin/chromium',
    args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
    ],
});
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
const shoot = (name) => page.screenshot({ path: path.join(folder, `${name}.png`) });
const visit = async (place) => {
    await page.goto(address + place);
    await page.waitForLoadState('networkidle');
};

await visit('/sources');
await page.getByText('being read').first().waitFor({ state: 'detached' });
const tick = (name) => page.getByRole('checkbox', { name: `Choose ${name}` }).check();
await tick('Tour of the lift.mp4');
await tick('Interview lift keeper.mov');
await tick('Memo gate three.m4a');
await shoot('sources');
const rows = await page
    .locator('tr[data-source]')
    .evaluateAll((all) => all.map((row) => [row.querySelector('a').textContent, row.dataset.source]));
const id = Object.fromEntries(rows);

await visit(`/sources/${id['Tour of the lift.mp4']}`);
await page.locator('video').evaluate(
    (video) =>
        new Promise((resolve) => {
            video.onseeked = () => setTimeout(resolve, 300);
            video.currentTime = 7;
        }),
);
await shoot('source');

await visit(`/sources/${id['Interview lift keeper.mov']}`);
const piece = async (begin, end, press) => {
    await page.getByLabel('Begin', { exact: true }).fill(begin);
    await page.getByLabel('Begin', { exact: true }).press('Enter');
    await page.getByLabel('End', { exact: true }).fill(end);
    await page.getByLabel('End', { exact: true }).press('Enter');
    await page.getByRole('button', { name: press }).click();
};
await piece('1.5', '4.2', 'Keep this piece');
await piece('8.2', '13', 'Keep this piece');
await piece('10', '11', 'Leave this piece out');
await page.getByRole('button', { name: 'R', exact: true }).click();
await shoot('waveforms');

await visit(`/order?sources=${id['Interview lift keeper.mov']}&format=wav&layout=split&labels=lav,boom&level=lufs:-23`);
await page.locator('.map-drawing').first().waitFor();
await page.mouse.move(640, 400);
await page.mouse.wheel(0, 620);
await page.waitForFunction(() => scrollY > 300);
await shoot('channel-map');

await visit('/shelves');
await page.getByLabel('Tour of the lift.mp4').check();
await shoot('shelf');

const chosen = [id['Interview lift keeper.mov'], id['Tour of the lift.mp4'], id['Memo gate three.m4a']].join(',');
const make = async (query) => {
    await visit(`/order?sources=${chosen}&${query}`);
    await page.getByRole('button', { name: /^Make 3/ }).click();
    await page.waitForFunction(() => document.querySelectorAll('.result[data-state=done]').length === 3);
};
await make('format=mp3&quality=podcast&layout=mono&name={stem}+podcast');
await make('format=wav&level=lufs:-18');
const all = rows.map(([, one]) => one).join(',');
await visit(`/order?sources=${all}&format=wav`);
await page.getByLabel('Order', { exact: true }).first().fill('Steam day');
await page.getByLabel('Name', { exact: true }).fill('{order}/{stem}');
await page.getByText('Steam day/Tour of the lift.wav').waitFor();
await page.evaluate(() => document.activeElement.blur());
await shoot('order-sheet');
await page.getByRole('link', { name: 'Tags of all lines' }).click();
await page.waitForLoadState('networkidle');
await shoot('tags');
await visit(`/order?sources=${all}&format=wav&layout=`);
await page.getByLabel('Goes to').selectOption('to:cutting-no-opus');
await page.locator('.standing').first().waitFor();
await page.locator('.board').evaluate((board) => scrollTo(0, board.getBoundingClientRect().top + scrollY - 60));
await shoot('destination-sheet');
await visit('/recipes');
await shoot('recipes');
await visit('/destinations/podcast-host');
await shoot('destination');
await visit(`/order?sources=${id['Opening ceremony.mkv']}&format=mov`);
await shoot('video-sheet');
await visit('/results');
await page.getByText('Hear it, and its receipt').nth(1).click();
// The receipt comes when it is opened, and its drawings once they are drawn.
await page.waitForFunction(
    () =>
        document.querySelectorAll('details[open] .before-after img').length > 1 &&
        [...document.querySelectorAll('details[open] .before-after img')].every((image) => image.naturalWidth > 0),
    null,
    { timeout: 30_000 },
);
await shoot('results');
await visit('/standing');
await page.getByLabel('Title').fill('Recorder to the podcast');
await page.getByLabel('Folder on it').fill('');
await page.getByLabel('What is made of each file').selectOption('by:episode');
await page.getByRole('button', { name: 'Watch this folder' }).click();
await page.getByText('It watches from now on.').waitFor();
for (let left = 20; left > 0 && (await page.getByRole('cell', { name: 'ordered', exact: true }).count()) === 0; left -= 1) {
    await page.waitForTimeout(2000);
    await page.reload();
}
await shoot('standing');
await visit('/settings');
await shoot('settings');

await visit('/interface');
await shoot('scripts');

// The samples of a recording, without what tells about them.
const sound = await (await fetch(`${address}/sources/${id['Canal at six in the morning.wav']}/media`)).arrayBuffer();
await visit('/sources');
await page.setInputFiles('#files', {
    name: 'Field take 3.pcm',
    mimeType: 'application/octet-stream',
    buffer: Buffer.from(sound).subarray(44),
});
await page.getByRole('link', { name: 'Try it as sound without a header' }).click();
await page.getByText('the first').waitFor();
await shoot('headerless');

await visit('/outside/drive');
await page.getByText('16-bit PCM, 5.1').first().waitFor();
await shoot('drive');
await visit(`/outside/catalogue?sources=${id['Evening rehearsal.mp3']},${id['Tour of the lift.mp4']}`);
await page.getByText('100 %').first().waitFor();
await shoot('catalogue');
await visit('/outside/page?results=1,2&title=Steam+day&waveform=1&accent=%23235347&ground=%23f5eee1&ink=%23231f20');
await page.frameLocator('iframe').getByRole('heading', { name: 'Steam day' }).waitFor();
await shoot('web-page');

await browser.close();
