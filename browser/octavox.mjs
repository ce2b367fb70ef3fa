// Starts the whole application in a home of its own, as `./octavox serve` does, and helps tests to look at results.
import { execFileSync, spawn } from 'node:child_process';
import fs from 'node:fs';
import net from 'node:net';
import os from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import AxeBuilder from '@axe-core/playwright';
import { expect } from '@playwright/test';

export const root = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '..');

const listen = (port) =>
    new Promise((resolve) => {
        const probe = net
            .createServer()
            .once('error', () => resolve(null))
            .listen(port, '127.0.0.1', () => {
                const got = probe.address().port;
                probe.close(() => resolve(got));
            });
    });

/** Which of the workers that run at once this is. */
const worker = Number(process.env.TEST_PARALLEL_INDEX ?? 0);
const WORKERS = 2;

/** One whose neighbour is free as well, for the catalogue; workers never take each other's. */
const freePort = async () => {
    for (;;) {
        const port = await listen(0);
        // A port and the next are a pair that no other pair shares.
        const isOurs = port % 2 === 1 && ((port - 1) / 2) % WORKERS === worker % WORKERS;
        if (isOurs && port < 65535 && (await listen(port + 1)) !== null) return port;
    }
};

export class Octavox {
    /** @param settings environment variables beside the home */
    static async start(shelf = '', settings = {}) {
        const octavox = new Octavox();
        octavox.settings = settings;
        octavox.home = fs.mkdtempSync(path.join(os.tmpdir(), 'octavox-browser-'));
        octavox.port = await freePort();
        octavox.shelf = shelf;
        await octavox.run();

        return octavox;
    }

    get address() {
        return `http://localhost:${this.port}`;
    }

    run() {
        return new Promise((resolve, reject) => {
            this.process = spawn('php', ['bin/run.php', '--port', String(this.port)], {
                cwd: root,
                env: { ...process.env, OCTAVOX_HOME: this.home, OCTAVOX_SHELVES: this.shelf, ...this.settings },
            });
            let said = '';
            const listen = (data) => {
                said += data;
                if (said.includes('Stop with Ctrl-C')) resolve();
            };
            this.process.stdout.on('data', listen);
            this.process.stderr.on('data', listen);
            this.process.on('exit', (status) => reject(new Error(`ended with ${status}: ${said}`)));
        });
    }

    async stop() {
        const ended = new Promise((resolve) => this.process.once('exit', resolve));
        this.process.kill('SIGINT');
        await ended;
    }

    /** Everything at once, as when the machine loses its power. */
    async kill() {
        const ended = new Promise((resolve) => this.process.once('exit', resolve));
        this.process.kill('SIGKILL');
        this.parts('.').forEach((part) => {
            try {
                process.kill(part, 'SIGKILL');
            } catch {
                /* gone already */
            }
        });
        await ended;
    }

    async end() {
        await this.stop();
        fs.rmSync(this.home, { recursive: true, force: true });
    }

    /** Process numbers of this application's parts whose command matches. */
    parts(pattern) {
        const wanted = new RegExp(pattern);

        return fs
            .readdirSync('/proc')
            .filter((name) => /^\d+$/.test(name))
            .filter((name) => {
                try {
                    return (
                        wanted.test(fs.readFileSync(`/proc/${name}/cmdline`, 'utf8').replaceAll('\0', ' ')) &&
                        fs.readFileSync(`/proc/${name}/environ`, 'utf8').includes(`OCTAVOX_HOME=${this.home}`)
                    );
                } catch {
                    return false;
                }
            })
            .map(Number);
    }

    /** What a query finds in its database. */
    rows(query) {
        return JSON.parse(
            execFileSync(
                'php',
                [
                    '-r',
                    `
            $database = new PDO('sqlite:'.$argv[1]);
            $database->setAttribute(PDO::ATTR_TIMEOUT, 20);
            echo json_encode($database->query($argv[2])->fetchAll(PDO::FETCH_ASSOC));`,
                    path.join(this.home, 'octavox.sqlite'),
                    query,
                ],
                { encoding: 'utf8' },
            ),
        );
    }

    /** A view breaks no rule of access and needs no scrolling to the side in a narrow window. */
    async isForEveryone(page, view) {
        await page.setViewportSize({ width: 1280, height: 800 });
        const answer = await page.goto(this.address + view);
        expect([view, answer.ok()]).toEqual([view, view !== '/nowhere']);
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
        expect(
            violations.map((violation) => [view, violation.id, violation.nodes.slice(0, 5).map((node) => node.html.slice(0, 160))]),
        ).toEqual([]);
        await page.setViewportSize({ width: 380, height: 700 });
        expect(await page.evaluate(() => document.documentElement.scrollWidth), view).toBeLessThanOrEqual(380);
    }

    // ---- what every job begins and ends with ----

    async bring(page, ...paths) {
        await page.goto(`${this.address}/sources`);
        // The same content is not taken in twice.
        const missing = [];
        for (const one of paths)
            if ((await page.getByRole('link', { name: path.basename(one), exact: true }).count()) === 0) missing.push(one);
        if (missing.length > 0) await page.locator('#files').setInputFiles(missing);
        for (const one of paths) {
            const row = page.locator('tr', { has: page.getByRole('link', { name: path.basename(one), exact: true }) }).first();
            await expect(row).toBeVisible();
            await expect(row).not.toHaveClass(/is-reading/);
        }
    }

    async order(page, ...names) {
        await page.goto(`${this.address}/sources`);
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
    }

    async download(page, name) {
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
    }

    /** All files below the results, hidden ones too. */
    results() {
        const all = fs.readdirSync(path.join(this.home, 'results'), { recursive: true, withFileTypes: true });

        return all.filter((entry) => entry.isFile()).map((entry) => path.join(entry.parentPath ?? entry.path, entry.name));
    }
}

/** The demo data, built once a worker. */
export const demo = () => {
    const folder = path.join(os.tmpdir(), `octavox-browser-demo-${worker}`);
    execFileSync('php', ['-d', 'ffi.enable=1', path.join(root, 'demo/build.php'), folder]);

    return (name) => path.join(folder, name);
};

/** A 16-bit stereo WAV of noise: nothing about it can be guessed or skipped. */
export const noise = (seconds, file) => {
    const frames = seconds * 48000;
    const bytes = Buffer.alloc(44 + frames * 4);
    bytes.write('RIFF', 0);
    bytes.writeUInt32LE(36 + frames * 4, 4);
    bytes.write('WAVEfmt ', 8);
    bytes.writeUInt32LE(16, 16);
    bytes.writeUInt16LE(1, 20);
    bytes.writeUInt16LE(2, 22);
    bytes.writeUInt32LE(48000, 24);
    bytes.writeUInt32LE(192000, 28);
    bytes.writeUInt16LE(4, 32);
    bytes.writeUInt16LE(16, 34);
    bytes.write('data', 36);
    bytes.writeUInt32LE(frames * 4, 40);
    let state = 1;
    for (let at = 44; at < bytes.length; at += 2) {
        state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
        bytes.writeInt16LE((state >>> 18) - 8192, at);
    }
    fs.writeFileSync(file, bytes);

    return file;
};

/** The 16-bit samples of a WAV, read by hand. */
export const samplesOf = (file) => {
    const bytes = fs.readFileSync(file);
    let channels = 0;
    for (let at = 12; at + 8 <= bytes.length; at += 8 + bytes.readUInt32LE(at + 4) + (bytes.readUInt32LE(at + 4) & 1)) {
        const name = bytes.toString('latin1', at, at + 4);
        if (name === 'fmt ') channels = bytes.readUInt16LE(at + 10);
        if (name === 'data') {
            const data = bytes.subarray(at + 8, at + 8 + bytes.readUInt32LE(at + 4));

            return { channels, values: new Int16Array(data.buffer.slice(data.byteOffset, data.byteOffset + data.length)) };
        }
    }
    throw new Error(`${file} has no samples`);
};

/** Decodes two files with the browser and says how far they differ, at the place where they agree best. */
export const compareInBrowser = async (page, first, second, reach = 0) =>
    page.evaluate(
        async ([a, b, within]) => {
            const decode = async (text) => {
                const context = new OfflineAudioContext(2, 48000, 48000);

                return context.decodeAudioData(Uint8Array.from(atob(text), (letter) => letter.charCodeAt(0)).buffer);
            };
            const [x, y] = [await decode(a), await decode(b)];
            const measure = (offset, from, to, step) => {
                let sound = 0;
                let difference = 0;
                for (let channel = 0; channel < Math.min(x.numberOfChannels, y.numberOfChannels); channel += 1) {
                    const one = x.getChannelData(channel);
                    const two = y.getChannelData(channel);
                    for (let at = from; at < to; at += step) {
                        sound += one[at] ** 2;
                        difference += (one[at] - two[at + offset]) ** 2;
                    }
                }

                return 10 * Math.log10(difference / sound + 1e-20);
            };
            const middle = Math.floor(Math.min(x.length, y.length) / 2);
            let best = [0, measure(0, middle, middle + 20000, 1)];
            for (let offset = -within; offset <= within; offset += 1) {
                const difference = measure(offset, middle, middle + 20000, 3);
                if (difference < best[1]) best = [offset, difference];
            }
            const end = Math.min(x.length, y.length) - Math.abs(best[0]) - 2000;

            return {
                lengths: [x.length, y.length],
                channels: [x.numberOfChannels, y.numberOfChannels],
                offset: best[0],
                difference: measure(best[0], 3000, end, 1),
            };
        },
        [fs.readFileSync(first).toString('base64'), fs.readFileSync(second).toString('base64'), reach],
    );
