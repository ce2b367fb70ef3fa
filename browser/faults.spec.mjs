// Kills every part of the running application, at random (seeded) and at moments that matter, fills its disk, closes its folder and
// holds its
// database; afterwards everything is done and verified or failed with a reason, nothing is there twice, and nothing half is left.

import { execFileSync, spawn, spawnSync } from 'node:child_process';
import crypto from 'node:crypto';
import fs from 'node:fs';
import net from 'node:net';
import os from 'node:os';
import path from 'node:path';
import { expect, request, test } from '@playwright/test';
import { noise, Octavox } from './octavox.mjs';

const SEED = Number(process.env.OCTAVOX_SEED || 20261127);
const KILLS = 60;
const MOST_MILLISECONDS = 170_000;

test.describe.configure({ mode: 'serial' });

let state = SEED >>> 0;
const random = () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), state | 1);
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61);

    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296;
};
const pick = (list) => list[Math.floor(random() * list.length)];
const pause = (milliseconds) =>
    new Promise((resolve) => {
        setTimeout(resolve, milliseconds);
    });
const sum = (file) => crypto.createHash('sha256').update(fs.readFileSync(file)).digest('hex');

const rows = (octavox, query) => octavox.rows(query);

const kill = (parts) =>
    parts.forEach((part) => {
        try {
            process.kill(part, 'SIGKILL');
        } catch {
            /* gone already */
        }
    });

/** Takes all files of the shelf in. */
const takeIn = async (octavox, names) => {
    const client = await request.newContext({ baseURL: octavox.address });
    const page = await (await client.get('/shelves/Faults')).text();
    const answer = await client.post('/shelves/Faults', {
        form: { _token: page.match(/name="_token" value="([^"]+)"/)[1], paths: JSON.stringify(names) },
    });
    expect(answer.ok()).toBe(true);
    await client.dispose();
};

/** Places one order for all sources; whoever is killed meanwhile, it is there or it is not. */
const place = async (octavox, wish) => {
    const client = await request.newContext({ baseURL: octavox.address });
    try {
        const sources = rows(octavox, "select id from sources where state = 'ready'")
            .map(({ id }) => id)
            .join(',');
        const address = `/order?${new URLSearchParams({ sources, ...wish })}`;
        const sheet = await client.get(address, { timeout: 10_000 });
        const [, order] = new URL(sheet.url()).pathname.match(/orders\/(\d+)/);
        const _token = (await sheet.text()).match(/name="_token" value="([^"]+)"/)[1];
        await client.post(`/orders/${order}/place`, { form: { _token }, timeout: 10_000, maxRedirects: 0 });
    } catch {
        /* the web was killed */
    } finally {
        await client.dispose();
    }
};

const settled = async (octavox) => {
    await expect
        .poll(() => rows(octavox, "select count(*) as open from results where state in ('waiting', 'making')")[0].open, {
            timeout: 60_000,
            intervals: [500],
        })
        .toBe(0);
    await expect
        .poll(() => rows(octavox, "select count(*) as open from sources where state = 'reading'")[0].open, {
            timeout: 30_000,
            intervals: [500],
        })
        .toBe(0);
    await expect
        .poll(
            () =>
                rows(octavox, "select count(*) as open from tracks where kind = 'sound' and analysis is null and analysis_error is null")[0]
                    .open,
            { timeout: 30_000, intervals: [500] },
        )
        .toBe(0);
    await expect
        .poll(() => rows(octavox, 'select count(*) as open from jobs where reserved_at is null')[0].open, {
            timeout: 30_000,
            intervals: [500],
        })
        .toBe(0);
    // What is being drawn comes to its end as well.
    await expect
        .poll(() => fs.readdirSync(path.join(octavox.home, 'waveforms')).filter((name) => name.includes('.part')), {
            timeout: 60_000,
            intervals: [500],
        })
        .toEqual([]);
    // Whoever was killed right after the row said that all is done left a note, which the next look takes away.
    await expect.poll(() => fs.readdirSync(path.join(octavox.home, 'journal')), { timeout: 30_000, intervals: [500] }).toEqual([]);
};

/** What must hold whatever happened. */
const check = (octavox, folder) => {
    const results = rows(octavox, 'select * from results');
    const done = results.filter((one) => one.state === 'done');
    results
        .filter((one) => one.state !== 'done')
        .forEach((one) => {
            expect(one.state).toBe('failed');
            expect(one.error_says).not.toBe('');
            expect(one.error_code).not.toBe('internal');
        });
    expect(new Set(done.map((one) => one.path)).size).toBe(done.length);
    const files = fs.existsSync(folder)
        ? fs
              .readdirSync(folder, { recursive: true, withFileTypes: true })
              .filter((entry) => entry.isFile())
              .map((entry) => path.join(entry.parentPath ?? entry.path, entry.name))
        : [];
    expect(files.filter((name) => path.basename(name) !== 'made').sort()).toEqual(done.map((one) => one.path).sort());
    const sums = new Map();
    for (const one of done) {
        const checksum = JSON.parse(one.receipt).checksum;
        expect(`xxh128:${execFileSync('php', ['-r', 'echo hash_file("xxh128", $argv[1]);', one.path], { encoding: 'utf8' })}`).toBe(
            checksum,
        );
        const wish = JSON.stringify([one.source_id, one.action, JSON.parse(one.plan).target.name]);
        // The same wish gives the same bytes, however often it was interrupted.
        sums.set(wish, (sums.get(wish) ?? new Set()).add(checksum));
    }
    sums.forEach((different) => expect(different.size).toBe(1));
    expect(rows(octavox, 'pragma integrity_check')).toEqual([{ integrity_check: 'ok' }]);
    for (const folder of ['waveforms', 'journal', 'uploads', 'sources']) {
        expect(
            fs
                .readdirSync(path.join(octavox.home, folder), { recursive: true })
                .filter((name) => name.includes('.part') || folder === 'journal'),
        ).toEqual([]);
    }

    return done.length;
};

const VICTIMS = {
    worker: (octavox) => kill(octavox.parts('queue:work --queue=making')),
    child: (octavox) => kill(octavox.parts('bin/maker\\.php')),
    analysis: (octavox) => kill(octavox.parts('bin/analysis\\.php|queue:work --queue=analysis')),
    reader: (octavox) => kill(octavox.parts('queue:work --queue=borders,reading')),
    web: (octavox) => kill(octavox.parts('bin/router\\.php').slice(random() < 0.3 ? 0 : 1)),
    keeper: (octavox) => kill(octavox.parts('octavox:keep')),
    supervisor: async (octavox) => {
        const ended = new Promise((resolve) => {
            octavox.process.once('exit', resolve);
        });
        octavox.process.kill('SIGKILL');
        await ended;
        await octavox.run();
    },
};

test('sixty kills', async () => {
    test.setTimeout(300_000);
    const shelf = fs.mkdtempSync(path.join(os.tmpdir(), 'octavox-faults-'));
    const names = [3, 8, 20, 70].map((seconds) => path.basename(noise(seconds, path.join(shelf, `Take of ${seconds} s.wav`))));
    const before = names.map((name) => sum(path.join(shelf, name)));
    const octavox = await Octavox.start(`Faults=${shelf}`);
    const results = path.join(octavox.home, 'results');
    try {
        await takeIn(octavox, names);
        // The analysis is killed twice while it hears something, and hears it in the end.
        for (let time = 0; time < 2; time += 1) {
            await expect.poll(() => octavox.parts('bin/analysis\\.php').length, { intervals: [20] }).toBeGreaterThan(0);
            VICTIMS.analysis(octavox);
        }
        const wishes = [{ format: 'mp3' }, { format: 'flac' }, { format: 'wav' }, { format: 'wav', layout: 'split' }, { format: 'opus' }];
        const began = Date.now();
        const killed = { analysis: 2 };
        const count = () => Object.values(killed).reduce((all, one) => all + one, 0);
        for (
            let round = 0;
            (count() < KILLS || Object.keys(killed).length < Object.keys(VICTIMS).length) && Date.now() - began < MOST_MILLISECONDS;
            round += 1
        ) {
            if (round % 8 === 0) await place(octavox, wishes[(round / 8) % wishes.length]);
            const victim = pick([
                'worker',
                'worker',
                'child',
                'child',
                'child',
                'web',
                'keeper',
                'analysis',
                'reader',
                ...(round % 3 === 0 ? ['supervisor'] : []),
            ]);
            if (random() < 0.4) {
                // The moment after a file got its name and before that is written down.
                const known = octavox.results().length;
                const until = Date.now() + 1500;
                while (octavox.results().filter((name) => !name.includes('.part')).length === known && Date.now() < until) await pause(3);
            } else {
                await pause(10 + random() * 900);
            }
            await VICTIMS[victim](octavox);
            killed[victim] = (killed[victim] ?? 0) + 1;
        }
        expect(count()).toBeGreaterThanOrEqual(KILLS);
        // Every part is begun again, so that all of it comes to its end.
        await settled(octavox);
        expect(octavox.parts('bin/router\\.php').length).toBe(15);
        expect(check(octavox, results)).toBeGreaterThan(3);

        // Asked to stop while it works: what was being made waits, and is done after the next start.
        await place(octavox, { format: 'flac' });
        await octavox.stop();
        expect(octavox.results().filter((name) => name.includes('.part'))).toEqual([]);
        expect(rows(octavox, "select error_says from results where state = 'failed' and error_code not in ('interrupted')")).toEqual([]);
        await octavox.run();
        await settled(octavox);
        check(octavox, results);
        expect(names.map((name) => sum(path.join(shelf, name)))).toEqual(before);
    } finally {
        await octavox.end();
        fs.rmSync(shelf, { recursive: true, force: true });
    }
});

test('ninety kills more: of whoever copies recorders, joins, copies safely, tends standing orders and sends archives', async () => {
    test.setTimeout(240_000);
    const shelf = fs.mkdtempSync(path.join(os.tmpdir(), 'octavox-faults-'));
    const spare = fs.mkdtempSync(path.join(os.tmpdir(), 'octavox-faults-spare-'));
    const watched = path.join(shelf, 'Watched');
    fs.mkdirSync(watched);
    const octavox = await Octavox.start(`Faults=${shelf}:Spare=${spare}`, { OCTAVOX_WRITABLE: 'Spare' });
    const recorder = path.join(octavox.home, 'recorders', 'Field recorder');
    fs.mkdirSync(recorder, { recursive: true });
    // Each take is another stretch of the noise; two that follow one another are one recording.
    const whole = fs.readFileSync(noise(20, path.join(spare, 'whole.wav')));
    fs.rmSync(path.join(spare, 'whole.wav'));
    const FRAME = 4;
    let taken = 0;
    const take = (file, frames, moment) => {
        const bytes = Buffer.concat([whole.subarray(0, 44), whole.subarray(44 + FRAME * taken, 44 + FRAME * (taken + frames))]);
        taken += frames;
        bytes.writeUInt32LE(bytes.length - 8, 4);
        bytes.writeUInt32LE(bytes.length - 44, 40);
        fs.writeFileSync(file, bytes);
        fs.utimesSync(file, moment, moment);

        return file;
    };
    const takes = [1, 2, 3, 4].map((number) =>
        take(path.join(recorder, `Lone ${number * 7}.wav`), 30_000 + 1000 * number, 1_700_000_000 + 9000 * number),
    );
    const parts = ['T1.wav', 'T2.wav'].map((name, number) => take(path.join(recorder, name), 48_000 >> number, 1_700_100_000));
    const press = async (address, form) => {
        const client = await request.newContext({ baseURL: octavox.address });
        try {
            const _token = (await (await client.get('/settings', { timeout: 10_000 })).text()).match(/name="_token" value="([^"]+)"/)[1];

            return await client
                .post(address, { form: { _token, ...form }, timeout: 20_000, maxRedirects: 0 })
                .then(async (answer) => ({ status: answer.status(), body: await answer.body() }));
        } catch {
            return null;
        } finally {
            await client.dispose();
        }
    };
    const VICTIMS_HERE = {
        ...VICTIMS,
        copier: (one) => kill(one.parts('queue:work --queue=copying')),
        // A file whose own reading was killed three times is told of, so that is left out here.
        core: (one) => kill(one.parts('core/bin/(?!reading)')),
    };
    const KILLS_HERE = 90;
    try {
        expect((await press('/settings', { _method: 'put', copies_on: 'Spare', care: 'copy' }))?.status).toBe(302);
        expect((await press('/standing', { title: 'What lands', shelf: 'Faults', folder: 'Watched', goes: 'by:put-away' }))?.status).toBe(
            302,
        );
        expect(rows(octavox, 'select count(*) as orders from watched_folders')[0].orders).toBe(1);
        const landed = [];
        const began = Date.now();
        let killed = 0;
        for (let round = 0; killed < KILLS_HERE && Date.now() - began < 120_000; round += 1) {
            // Somebody presses, files land, and archives are sent meanwhile; whatever is cut off is only cut off.
            const busy = [];
            if (round % 5 === 0) busy.push(press('/outside/recorders', { recorder: 'Field recorder' }));
            if (round % 20 === 3) busy.push(place(octavox, { format: 'flac' }));
            if (round % 15 === 4) landed.push(take(path.join(watched, `Landed ${round}.wav`), 20_000, 1_700_200_000 + round));
            if (round % 6 === 2)
                busy.push(
                    press('/results/many', {
                        do: 'download',
                        results: rows(octavox, "select id from results where state = 'done'")
                            .map(({ id }) => id)
                            .join(','),
                    }),
                );
            await pause(10 + random() * 600);
            await VICTIMS_HERE[
                pick([
                    'copier',
                    'copier',
                    'copier',
                    'core',
                    'core',
                    'worker',
                    'child',
                    'keeper',
                    'keeper',
                    'web',
                    'reader',
                    ...(round % 9 === 0 ? ['supervisor'] : []),
                ])
            ](octavox);
            killed += 1;
            if (round % 4 === 3) await Promise.all(busy);
        }
        expect(killed).toBeGreaterThanOrEqual(KILLS_HERE);
        await expect
            .poll(() => rows(octavox, "select count(*) as open from copied_folders where state = 'copying'")[0].open, {
                timeout: 60_000,
                intervals: [500],
            })
            .toBe(0);
        await press('/outside/recorders', { recorder: 'Field recorder' });
        await expect
            .poll(() => rows(octavox, "select count(*) as open from copied_folders where state = 'copying'")[0].open, {
                timeout: 60_000,
                intervals: [500],
            })
            .toBe(0);
        // Every recording is a source, once: the lone ones as they are, the parts as one.
        await expect
            .poll(() => rows(octavox, "select count(*) as sources from sources where origin = 'recorder' and state = 'ready'")[0].sources, {
                timeout: 60_000,
                intervals: [500],
            })
            .toBe(takes.length + 1);
        const copied = rows(octavox, "select path from sources where origin = 'recorder'").map((one) => one.path);
        expect(copied.map(sum).filter((one) => takes.map(sum).includes(one)).length).toBe(takes.length);
        const sound = Buffer.concat(parts.map((file) => fs.readFileSync(file).subarray(44)));
        expect(copied.filter((file) => fs.readFileSync(file).includes(sound)).length).toBe(1);
        // What landed is made, each once.
        await expect
            .poll(
                () =>
                    rows(
                        octavox,
                        "select count(distinct source_name) as made from results where state = 'done' and " +
                            'order_id in (select order_id from arrivals where order_id is not null)',
                    )[0].made,
                { timeout: 60_000, intervals: [500] },
            )
            .toBe(landed.length);
        await settled(octavox);
        expect(
            rows(
                octavox,
                'select source_name from results where order_id in (select order_id from arrivals where order_id is not null) ' +
                    'group by source_name having count(*) > 1',
            ),
        ).toEqual([]);
        check(octavox, path.join(octavox.home, 'results'));
        // Safe copies are the same as their sources, and nothing half lies among them.
        const copies = fs
            .readdirSync(spare, { recursive: true, withFileTypes: true })
            .filter((entry) => entry.isFile())
            .map((entry) => path.join(entry.parentPath ?? entry.path, entry.name))
            .filter((file) => file.endsWith('.wav'));
        const originals = new Set([...takes, ...landed, ...copied].map(sum));
        expect(copies.filter((file) => !originals.has(sum(file)))).toEqual([]);
        // The archive holds all that is done.
        const done = rows(octavox, "select id from results where state = 'done'").map(({ id }) => id);
        const zip = await press('/results/many', { do: 'download', results: done.join(',') });
        expect(zip?.status).toBe(200);
        fs.writeFileSync(path.join(octavox.home, 'all.zip'), zip.body);
        const listed = execFileSync(
            'python3',
            [
                '-c',
                'import sys, zipfile; z = zipfile.ZipFile(sys.argv[1]); assert z.testzip() is None; ' +
                    'print(len([n for n in z.namelist() if not n.endswith(".txt")]))',
                path.join(octavox.home, 'all.zip'),
            ],
            { encoding: 'utf8' },
        );
        expect(Number(listed)).toBe(done.length);
    } finally {
        await octavox.end();
        fs.rmSync(shelf, { recursive: true, force: true });
        fs.rmSync(spare, { recursive: true, force: true });
    }
});

test('two hundred browsers that ask for sound and read nothing stop no page', async () => {
    test.setTimeout(120_000);
    const shelf = fs.mkdtempSync(path.join(os.tmpdir(), 'octavox-faults-'));
    const octavox = await Octavox.start(`Faults=${shelf}`);
    const silent = [];
    try {
        const file = noise(60, path.join(shelf, 'Long take.wav'));
        await takeIn(octavox, [path.basename(file)]);
        await settled(octavox);
        const [{ id }] = rows(octavox, 'select id from sources');
        const ask = (address) =>
            new Promise((resolve, reject) => {
                const socket = net
                    .connect(octavox.port, '127.0.0.1', () => {
                        // Asked, and not read from then on.
                        socket.write(`GET ${address} HTTP/1.1\r\nHost: localhost:${octavox.port}\r\n\r\n`, resolve);
                    })
                    .once('error', reject);
                socket.on('error', () => undefined);
                silent.push(socket.pause());
            });
        const addresses = [`/sources/${id}/media`, `/sources/${id}/tracks/1/hear`, `/sources/${id}/tracks/1/sound`];
        for (let number = 0; number < 200; number += 1) await ask(addresses[number % addresses.length]);
        const client = await request.newContext({ baseURL: octavox.address });
        const taken = [];
        for (let page = 0; page < 40; page += 1) {
            const since = performance.now();
            expect((await client.get(['/sources', '/results', '/work', '/order'][page % 4])).ok()).toBe(true);
            taken.push(performance.now() - since);
        }
        expect(Math.max(...taken)).toBeLessThan(1000);
        // Whoever reads gets all of it meanwhile.
        await expect
            .poll(async () => (await client.get(`/sources/${id}/media`)).headers()['content-length'] ?? '', { timeout: 30_000 })
            .toBe(String(fs.statSync(file).size));
        expect((await (await client.get(`/sources/${id}/media`)).body()).equals(fs.readFileSync(file))).toBe(true);
        await client.dispose();
    } finally {
        silent.forEach((socket) => socket.destroy());
        await octavox.end();
        fs.rmSync(shelf, { recursive: true, force: true });
    }
});

test('a full disk, a folder that takes nothing, a database that is held', async () => {
    test.setTimeout(120_000);
    const shelf = fs.mkdtempSync(path.join(os.tmpdir(), 'octavox-faults-'));
    const names = [1, 8].map((seconds) => path.basename(noise(seconds, path.join(shelf, `Take of ${seconds} s.wav`))));
    const narrow = fs.mkdtempSync(path.join(os.tmpdir(), 'octavox-narrow-'));
    let uploads = '';
    const mounted = spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=2m', 'tmpfs', narrow]).status === 0;
    try {
        // The disk: what fits is made, what does not fit waits.
        if (mounted) {
            const octavox = await Octavox.start(`Faults=${shelf}`, { OCTAVOX_RESULTS: narrow });
            await takeIn(octavox, names);
            await settled(octavox);
            await place(octavox, { format: 'wav', bits: '24' });
            // What has no room waits for it, leaves nothing meanwhile, and goes on by itself.
            await expect
                .poll(() => rows(octavox, 'select state, waits_for from results order by samples'))
                .toEqual([
                    { state: 'done', waits_for: null },
                    { state: 'waiting', waits_for: 'room' },
                ]);
            expect(fs.readdirSync(path.join(narrow, '0001')).filter((name) => name.includes('.part'))).toEqual([]);
            const page = await request.newContext({ baseURL: octavox.address });
            expect(await (await page.get('/results')).text()).toContain('waiting for room on its drive');
            await page.dispose();
            spawnSync('mount', ['-o', 'remount,size=16m', narrow]);
            await settled(octavox);
            expect(check(octavox, narrow)).toBe(2);
            // An upload that meets a full disk is told so, keeps what came, and goes on when there is room.
            uploads = path.join(octavox.home, 'uploads');
            spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=1m', 'tmpfs', uploads]);
            const client = await request.newContext({ baseURL: octavox.address });
            const token = (await (await client.get('/sources')).text()).match(/name="csrf-token" content="([^"]+)"/)[1];
            const headers = { 'X-CSRF-TOKEN': token, 'Tus-Resumable': '1.0.0' };
            const upload = async () =>
                (
                    await client.post('/uploads', {
                        headers: {
                            ...headers,
                            'Upload-Length': '700000',
                            'Upload-Metadata': `filename ${Buffer.from('big.wav').toString('base64')}`,
                        },
                    })
                ).headers().location;
            const send = (location, bytes) =>
                client.patch(location, {
                    headers: { ...headers, 'Upload-Offset': '0', 'Content-Type': 'application/offset+octet-stream' },
                    data: Buffer.alloc(bytes, 7),
                });
            // Each of both would have room alone.
            const locations = [await upload(), await upload()];
            fs.writeFileSync(path.join(octavox.home, 'uploads', 'other'), Buffer.alloc(200_000));
            const [first, second] = [await send(locations[0], 600_000), await send(locations[1], 700_000)];
            expect([first.status(), second.status()]).toEqual([204, 507]);
            expect((await client.get('/sources')).status()).toBe(200);
            await client.dispose();
            spawnSync('umount', [uploads]);
            await octavox.end();
            fs.rmSync(path.join(narrow, '0001'), { recursive: true, force: true });
        }
        // The folder: a place in which nobody can create anything.
        const octavox = await Octavox.start(`Faults=${shelf}`, { OCTAVOX_RESULTS: '/proc/octavox' });
        await takeIn(octavox, names);
        await settled(octavox);
        await place(octavox, { format: 'mp3' });
        await settled(octavox);
        expect(rows(octavox, 'select distinct state, error_code from results')).toEqual([
            { state: 'failed', error_code: 'file-unwritable' },
        ]);
        await octavox.stop();

        // The database: somebody else writes for seconds while results come to their end.
        octavox.settings = {};
        await octavox.run();
        await place(octavox, { format: 'flac' });
        const holder = spawn('php', [
            '-r',
            `
            $database = new PDO('sqlite:'.$argv[1]);
            $database->setAttribute(PDO::ATTR_TIMEOUT, 20);
            $database->exec('begin exclusive');
            echo 'held';
            sleep(7);
            $database->exec('rollback');`,
            path.join(octavox.home, 'octavox.sqlite'),
        ]);
        const released = new Promise((resolve) => {
            holder.once('exit', resolve);
        });
        await new Promise((resolve) => {
            holder.stdout.once('data', resolve);
        });
        await released;
        await settled(octavox);
        expect(rows(octavox, "select count(*) as done from results where state = 'done'")[0].done).toBe(2);
        expect(octavox.results().filter((name) => name.includes('.part'))).toEqual([]);
        expect(rows(octavox, 'pragma integrity_check')).toEqual([{ integrity_check: 'ok' }]);
        await octavox.end();
    } finally {
        if (mounted) spawnSync('umount', [narrow]);
        if (mounted && uploads !== '') spawnSync('umount', [uploads]);
        fs.rmSync(narrow, { recursive: true, force: true });
        fs.rmSync(shelf, { recursive: true, force: true });
    }
});

test('a batch of three hundred, with a pause, kills, a restart, a full disk and a shelf that goes away in the middle', async () => {
    test.setTimeout(480_000);
    const FILES = 300;
    const kept = fs.mkdtempSync(path.join(os.tmpdir(), 'octavox-batch-'));
    const shelf = fs.mkdtempSync(path.join(os.tmpdir(), 'octavox-batch-shelf-'));
    const narrow = fs.mkdtempSync(path.join(os.tmpdir(), 'octavox-batch-results-'));
    const names = Array.from({ length: FILES }, (_, number) => `Take ${String(number + 1).padStart(3, '0')}.wav`);
    const whole = fs.readFileSync(noise(1, path.join(kept, 'whole.wav')));
    fs.rmSync(path.join(kept, 'whole.wav'));
    // Each is another stretch of the noise, so that none has the content of another.
    names.forEach((name, number) => {
        const bytes = Buffer.concat([whole.subarray(0, 44), whole.subarray(44 + 4 * 50 * number, 44 + 4 * (50 * number + 30_000))]);
        bytes.writeUInt32LE(bytes.length - 8, 4);
        bytes.writeUInt32LE(bytes.length - 44, 40);
        fs.writeFileSync(path.join(kept, name), bytes);
    });
    const mounted =
        spawnSync('mount', ['--bind', kept, shelf]).status === 0 &&
        spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=64m', 'tmpfs', narrow]).status === 0;
    if (!mounted) names.forEach((name) => fs.copyFileSync(path.join(kept, name), path.join(shelf, name)));
    const octavox = await Octavox.start(`Faults=${shelf}`, { OCTAVOX_RESULTS: narrow });
    const count = (state) => rows(octavox, `select count(*) as files from results where state in (${state})`)[0].files;
    const reaches = (files) => expect.poll(() => count("'done'"), { timeout: 60_000, intervals: [100] }).toBeGreaterThanOrEqual(files);
    const press = async (address, form) => {
        const client = await request.newContext({ baseURL: octavox.address });
        const _token = (await (await client.get('/settings')).text()).match(/name="_token" value="([^"]+)"/)[1];
        const answer = await client.post(address, { form: { _token, ...form } });
        await client.dispose();
        expect(answer.ok()).toBe(true);
    };
    try {
        await takeIn(octavox, names);
        await expect
            .poll(() => rows(octavox, "select count(*) as files from sources where state = 'ready'")[0].files, {
                timeout: 90_000,
                intervals: [500],
            })
            .toBe(FILES);
        // One at a time, so that there is a middle for everything.
        await press('/settings', { _method: 'put', workers: '1' });
        await place(octavox, { format: 'wav', bits: '24' });
        expect(count("'waiting', 'making', 'done'")).toBe(FILES);
        await reaches(10);
        // The pause: what is at work goes back, and nothing is begun.
        await press('/work', { held: '1' });
        await expect.poll(() => count("'making'"), { intervals: [100] }).toBe(0);
        const paused = count("'done'");
        VICTIMS.worker(octavox);
        await expect.poll(() => octavox.parts('queue:work --queue=making').length, { intervals: [100] }).toBeGreaterThan(0);
        // Whoever had just taken one when the pause came may still lay it down again.
        await expect.poll(() => count("'making'"), { intervals: [100] }).toBe(0);
        expect(count("'done'") - paused).toBeLessThanOrEqual(1);
        await press('/work', { held: '0' });
        for (let round = 1; round <= 4; round += 1) {
            await reaches(paused + 12 * round);
            await VICTIMS[['child', 'worker', 'keeper', 'child'][round - 1]](octavox);
        }
        await VICTIMS.supervisor(octavox);
        await reaches(paused + 60);
        if (mounted) {
            // The disk: what does not fit waits, and goes on.
            spawnSync('mount', ['-o', 'remount,size=16m', narrow]);
            await expect
                .poll(() => rows(octavox, "select count(*) as files from results where waits_for = 'room'")[0].files, {
                    timeout: 60_000,
                    intervals: [200],
                })
                .toBeGreaterThan(0);
            spawnSync('mount', ['-o', 'remount,size=128m', narrow]);
            await reaches(paused + 90);
            // The shelf: what cannot be read fails with the reason, what was made stays.
            spawnSync('umount', ['-l', shelf]);
            await expect.poll(() => count("'failed'"), { timeout: 60_000, intervals: [100] }).toBeGreaterThan(0);
            expect(
                rows(octavox, "select distinct error_code from results where state = 'failed'")
                    .map((row) => row.error_code)
                    .every((code) => ['file-unreadable', 'source-changed', 'interrupted'].includes(code)),
            ).toBe(true);
            spawnSync('mount', ['--bind', kept, shelf]);
        }
        // Hundreds of results are drawn as well.
        const drawn = () =>
            expect
                .poll(() => rows(octavox, 'select count(*) as open from jobs where reserved_at is null')[0].open, {
                    timeout: 240_000,
                    intervals: [500],
                })
                .toBe(0);
        await drawn();
        await settled(octavox);
        const [{ id }] = rows(octavox, "select id from orders where state = 'placed'");
        await press('/results/many', { do: 'retry', order: id });
        await drawn();
        await settled(octavox);
        expect(count("'done'")).toBe(FILES);
        expect(check(octavox, narrow)).toBe(FILES);
        expect(rows(octavox, 'select count(distinct source_id) as sources, count(*) as files from results')[0]).toEqual({
            sources: FILES,
            files: FILES,
        });
    } finally {
        await octavox.end();
        [shelf, narrow].forEach((folder) => {
            if (mounted) spawnSync('umount', ['-l', folder]);
        });
        [kept, shelf, narrow].forEach((folder) => fs.rmSync(folder, { recursive: true, force: true }));
    }
});

test('at rest the whole application uses less than a hundredth of a core', async ({ page }) => {
    const octavox = await Octavox.start();
    try {
        await page.goto(octavox.address);
        const ticks = () =>
            octavox.parts('.').reduce((all, part) => {
                try {
                    // proc(5): utime and stime, in hundredths of a second here and everywhere that Debian runs
                    const fields = fs
                        .readFileSync(`/proc/${part}/stat`, 'utf8')
                        .replace(/^.*\) /s, '')
                        .split(' ');

                    return all + Number(fields[11]) + Number(fields[12]);
                } catch {
                    return all;
                }
            }, 0);
        // What has begun a moment ago is still at work.
        let before = -1;
        await expect
            .poll(
                () => {
                    const [now, quiet] = [ticks(), ticks() === before];
                    before = now;

                    return quiet;
                },
                { intervals: [500], timeout: 30_000 },
            )
            .toBe(true);
        const [began, from] = [Date.now(), ticks()];
        await expect.poll(() => Date.now() - began, { intervals: [12_000], timeout: 30_000 }).toBeGreaterThan(10_000);
        expect((ticks() - from) / ((Date.now() - began) / 10)).toBeLessThan(0.01);
    } finally {
        await octavox.end();
    }
});
