// Waveforms, marks, pieces and playing of one sound track. All places are samples from where the sound begins.
'use strict';

const beginListening = (root) => {
    root.dataset.begun = '1';
    const area = root.querySelector('[data-waveforms]');
    if (!area) return;
    const one = (selector) => root.querySelector(selector);
    const all = (selector) => [...root.querySelectorAll(selector)];
    const facts = {
        source: root.dataset.source,
        track: root.dataset.track,
        rate: Number(root.dataset.rate),
        samples: Number(root.dataset.samples),
        letters: JSON.parse(root.dataset.letters),
        frames: Number(root.dataset.frames),
        chapters: JSON.parse(root.dataset.chapters),
        ends: JSON.parse(root.dataset.ends),
    };
    const channels = facts.letters.length;
    const style = getComputedStyle(document.documentElement);
    const colour = (name) => style.getPropertyValue(name).trim();

    // ---- times, as they are typed and shown ----
    const clock = (samples) => {
        const ms = Math.floor((samples * 1000) / facts.rate);
        const part = (value, width = 2) => String(value).padStart(width, '0');
        const rest = `${part(Math.floor(ms / 1000) % 60)}.${part(ms % 1000, 3)}`;

        return ms >= 3600000
            ? `${Math.floor(ms / 3600000)}:${part(Math.floor(ms / 60000) % 60)}:${rest}`
            : `${Math.floor(ms / 60000)}:${rest}`;
    };
    const parse = (text) => {
        const value = text.trim().toLowerCase();
        let parts = /^(?:(?:(\d+):)?(\d+):)?(\d+(?:[.,]\d+)?)s?$/.exec(value);
        if (parts)
            return Math.round(
                (Number(parts[1] || 0) * 3600 + Number(parts[2] || 0) * 60 + Number(parts[3].replace(',', '.'))) * facts.rate,
            );
        parts = /^(\d+)#$/.exec(value);
        if (parts) return Number(parts[1]);
        parts = /^(\d+)f$/.exec(value);
        if (parts && facts.frames > 0) return Math.round((Number(parts[1]) * facts.rate) / facts.frames);

        return value === 'end' ? facts.samples : null;
    };
    const within = (sample) => Math.max(0, Math.min(facts.samples, Math.round(sample)));

    // ---- what is marked and kept, with every step before and after, through reloads of the page ----
    const store = `octavox-pieces-${facts.source}-${facts.track}`;
    const kept = (() => {
        try {
            return JSON.parse(sessionStorage.getItem(store)) || {};
        } catch {
            return {};
        }
    })();
    const past = kept.past || [];
    const future = kept.future || [];
    let now = kept.now || { begin: 0, end: facts.samples, pieces: [] };
    let line = 0;
    let last = 'begin';
    let view = { from: 0, until: Math.max(1, facts.samples) };
    const silent = new Set();

    const say = (text) => {
        one('[data-says]').textContent = text;
    };
    const save = () => sessionStorage.setItem(store, JSON.stringify({ past, now, future }));
    const change = (next) => {
        past.push(now);
        future.length = 0;
        now = { ...now, ...next };
        save();
        show();
    };
    const step = (from, to) => {
        if (from.length === 0) return;
        to.push(now);
        now = from.pop();
        save();
        show();
    };
    const mark = (which, sample) => {
        const place = within(sample);
        last = which;
        change(which === 'begin' ? { begin: place, end: Math.max(place, now.end) } : { end: place, begin: Math.min(place, now.begin) });
    };

    /** Stretches that are heard in the end: what is kept, without what is left out. */
    const result = () => {
        const keeps = now.pieces.filter((piece) => piece.keep);
        const drops = now.pieces.filter((piece) => !piece.keep);
        let ranges = keeps.length > 0 ? keeps.map((piece) => [piece.from, piece.until]) : [[0, facts.samples]];
        drops.forEach((drop) => {
            ranges = ranges.flatMap(([from, until]) =>
                [
                    [from, Math.min(until, drop.from)],
                    [Math.max(from, drop.until), until],
                ].filter(([a, b]) => b > a),
            );
        });

        return ranges;
    };

    // ---- drawing ----
    let drawn = null;
    let asked = 0;
    const canvases = all('[data-canvas]');
    const scale = one('[data-scale]');
    const size = (canvas) => {
        const ratio = window.devicePixelRatio || 1;
        const box = canvas.getBoundingClientRect();
        canvas.width = Math.max(1, Math.round(box.width * ratio));
        canvas.height = Math.max(1, Math.round(box.height * ratio));

        return canvas.getContext('2d');
    };
    const x = (sample, width) => ((sample - view.from) / (view.until - view.from)) * width;
    const shade = (context, from, until, fill) => {
        const { width, height } = context.canvas;
        context.fillStyle = fill;
        context.fillRect(x(from, width), 0, Math.max(1, x(until, width) - x(from, width)), height);
    };
    const hatch = (context, from, until) => {
        const { width, height } = context.canvas;
        const [left, right] = [Math.max(0, x(from, width)), Math.min(width, x(until, width))];
        if (right <= left) return;
        context.save();
        context.beginPath();
        context.rect(left, 0, right - left, height);
        context.clip();
        context.strokeStyle = colour('--rule-dark');
        context.lineWidth = 1;
        for (let at = left - height; at < right; at += 9) {
            context.beginPath();
            context.moveTo(at, height);
            context.lineTo(at + height, 0);
            context.stroke();
        }
        context.restore();
    };
    const upright = (context, sample, stroke, width) => {
        const at = x(sample, context.canvas.width);
        if (at < 0 || at > context.canvas.width) return;
        context.fillStyle = stroke;
        context.fillRect(Math.round(at - width / 2), 0, width, context.canvas.height);
    };
    const waveform = (context, channel) => {
        const { width, height } = context.canvas;
        const middle = height / 2;
        context.fillStyle = silent.has(channel) ? colour('--rule-dark') : colour('--ink-soft');
        context.fillRect(0, Math.round(middle), width, 1);
        if (!drawn) return;
        if (drawn.kind === 'samples' && view.until - view.from > 4 * width) {
            const count = drawn.values.length / channels;
            for (let pixel = 0; pixel < width; pixel += 1) {
                const first = Math.max(0, Math.floor(view.from + (pixel / width) * (view.until - view.from)) - drawn.first);
                const end = Math.min(count, Math.ceil(view.from + ((pixel + 1) / width) * (view.until - view.from)) - drawn.first + 1);
                let low = 32767;
                let high = -32768;
                for (let index = first; index < end; index += 1) {
                    const value = drawn.values[index * channels + channel];
                    if (value < low) low = value;
                    if (value > high) high = value;
                }
                if (high >= low) context.fillRect(pixel, middle - (high / 32768) * middle, 1, Math.max(1, ((high - low) / 32768) * middle));
            }

            return;
        }
        if (drawn.kind === 'samples') {
            context.strokeStyle = context.fillStyle;
            context.lineWidth = 1.5;
            context.beginPath();
            for (let index = 0; index * channels < drawn.values.length; index += 1) {
                const y = middle - (drawn.values[index * channels + channel] / 32768) * middle;
                if (index === 0) context.moveTo(x(drawn.first, width), y);
                else context.lineTo(x(drawn.first + index, width), y);
            }
            context.stroke();

            return;
        }
        const steps = drawn.values.length / (2 * channels);
        for (let pixel = 0; pixel < width; pixel += 1) {
            const from = view.from + (pixel / width) * (view.until - view.from);
            const until = view.from + ((pixel + 1) / width) * (view.until - view.from);
            const first = Math.floor(from / drawn.step) - drawn.first;
            const end = Math.max(first + 1, Math.ceil(until / drawn.step) - drawn.first);
            let low = 32767;
            let high = -32768;
            for (let index = Math.max(0, first); index < Math.min(steps, end); index += 1) {
                low = Math.min(low, drawn.values[(index * channels + channel) * 2]);
                high = Math.max(high, drawn.values[(index * channels + channel) * 2 + 1]);
            }
            if (high >= low) context.fillRect(pixel, middle - (high / 32768) * middle, 1, Math.max(1, ((high - low) / 32768) * middle));
        }
    };
    const figures = () => {
        const context = size(scale);
        const { width, height } = context.canvas;
        const ratio = window.devicePixelRatio || 1;
        const seconds = (view.until - view.from) / facts.rate;
        const wanted = seconds / Math.max(2, width / ratio / 110);
        const nice =
            [
                0.0001, 0.0002, 0.0005, 0.001, 0.002, 0.005, 0.01, 0.02, 0.05, 0.1, 0.2, 0.5, 1, 2, 5, 10, 15, 30, 60, 120, 300, 600, 900,
                1800, 3600, 7200,
            ].find((value) => value >= wanted) || 14400;
        context.fillStyle = colour('--ink-soft');
        context.font = `${11 * ratio}px ${colour('--mono')}`;
        for (let at = Math.ceil(view.from / facts.rate / nice) * nice; at * facts.rate <= view.until; at += nice) {
            const place = x(at * facts.rate, width);
            context.fillRect(Math.round(place), 0, 1, 4 * ratio);
            context.fillText(
                nice < 1 ? clock(Math.round(at * facts.rate)) : clock(Math.round(at * facts.rate)).replace(/\.\d+$/, ''),
                place + 4,
                height - 3 * ratio,
            );
        }
    };
    const draw = () => {
        const ratio = window.devicePixelRatio || 1;
        canvases.forEach((canvas) => {
            const context = size(canvas);
            if (now.pieces.length > 0) result().forEach(([from, until]) => shade(context, from, until, 'rgba(20, 107, 96, .16)'));
            if (now.begin > 0 || now.end < facts.samples) shade(context, now.begin, now.end, 'rgba(109, 29, 75, .12)');
            waveform(context, Number(canvas.dataset.canvas));
            now.pieces.filter((piece) => !piece.keep).forEach((piece) => hatch(context, piece.from, piece.until));
            upright(context, now.begin, colour('--damson'), 2 * ratio);
            upright(context, now.end, colour('--damson'), 2 * ratio);
            upright(context, line, colour('--ink'), ratio);
        });
        figures();
    };

    /** Fetches what the window shows: the waveforms, or the samples themselves where one step is more than a pixel. */
    const fetchView = async () => {
        asked += 1;
        const mine = asked;
        const from = Math.floor(view.from);
        const until = Math.ceil(view.until);
        const width = Math.max(200, canvases[0].getBoundingClientRect().width * (window.devicePixelRatio || 1));
        if (until - from < width * 256 && until - from < 30 * facts.rate) {
            const answer = await fetch(`${root.dataset.sound}?from=${from}&count=${until - from}`);
            const bytes = await answer.arrayBuffer();
            if (mine !== asked) return;
            drawn = { kind: 'samples', first: from, values: new Int16Array(bytes, 0, Math.floor(bytes.byteLength / 2)) };
            draw();

            return;
        }
        const answer = await fetch(`${root.dataset.waveform}?from=${from}&until=${until}&most=${Math.ceil(width * 8)}`);
        if (mine !== asked) return;
        if (answer.status !== 200) {
            window.setTimeout(fetchView, 600);

            return;
        }
        const bytes = await answer.arrayBuffer();
        if (mine !== asked) return;
        drawn = {
            kind: 'waveform',
            step: Number(answer.headers.get('X-Step')),
            first: Number(answer.headers.get('X-First')),
            values: new Int16Array(bytes),
        };
        area.dataset.drawn = answer.headers.get('X-Done');
        if (Number(answer.headers.get('X-Done')) < Number(answer.headers.get('X-Samples')))
            window.setTimeout(() => {
                if (mine === asked) fetchView();
            }, 700);
        draw();
    };
    let waiting = 0;
    const look = (from, until) => {
        const least = Math.min(facts.samples, 64);
        const length = Math.max(least, Math.min(facts.samples, until - from));
        const begin = Math.max(0, Math.min(facts.samples - length, from));
        view = { from: begin, until: Math.max(begin + 1, begin + length) };
        const slider = one('[data-window]');
        slider.hidden = length >= facts.samples;
        slider.value = String(facts.samples > length ? Math.round((begin / (facts.samples - length)) * 1000) : 0);
        draw();
        window.clearTimeout(waiting);
        waiting = window.setTimeout(fetchView, 60);
    };
    const zoom = (factor, around = line >= view.from && line <= view.until ? line : (view.from + view.until) / 2) =>
        look(around - (around - view.from) * factor, around + (view.until - around) * factor);

    // ---- playing: the server decodes the stretch that is asked for, the browser plays it and mutes channels ----
    let sound = null;
    let gains = [];
    let run = 0;
    let plan = [];
    const place = (letter, index) => {
        if (/^[LR]/.test(letter) && letter !== 'LFE') return letter[0] === 'L' ? [1, 0] : [0, 1];
        if (letter === 'LFE') return [0.5, 0.5];
        if (/^\d/.test(letter)) return index % 2 === 0 ? [1, 0] : [0, 1];

        return channels === 1 ? [1, 1] : [0.7, 0.7];
    };
    const desk = () => {
        sound ??= new AudioContext();
        if (gains.length > 0) return;
        const merger = sound.createChannelMerger(2);
        merger.connect(sound.destination);
        gains = facts.letters.map((letter, index) => {
            const gain = sound.createGain();
            place(letter, index).forEach((level, side) => {
                if (level === 0) return;
                const pan = sound.createGain();
                pan.gain.value = level;
                gain.connect(pan);
                pan.connect(merger, 0, side);
            });

            return gain;
        });
    };
    const mute = () => gains.forEach((gain, index) => gain.gain.setValueAtTime(silent.has(index) ? 0 : 1, sound.currentTime));
    const stop = () => {
        run += 1;
        plan.forEach((entry) => entry.node.stop());
        plan = [];
        one('[data-play]').textContent = 'Play';
        delete root.dataset.playing;
    };
    const pause = (ms) =>
        new Promise((done) => {
            window.setTimeout(done, ms);
        });
    const decode = async (from, count) => {
        const answer = await fetch(`${root.dataset.sound}?from=${from}&count=${count}`);
        const bytes = await answer.arrayBuffer();

        return new Int16Array(bytes, 0, Math.floor(bytes.byteLength / 2));
    };
    const play = async (ranges) => {
        stop();
        const mine = run;
        desk();
        await sound.resume();
        mute();
        one('[data-play]').textContent = 'Stop';
        root.dataset.playing = '1';
        let when = 0;
        let next = 1;
        for (const [from, until] of ranges) {
            for (let at = from; at < until; ) {
                const count = Math.min(Math.ceil(facts.rate * next), until - at);
                next = Math.min(12, next * 3);
                let values;
                try {
                    values = await decode(at, count);
                } catch {
                    say('The connection is gone; play it again once it is back.');
                    stop();

                    return;
                }
                if (mine !== run) return;
                const frames = Math.floor(values.length / channels);
                if (frames === 0) break;
                const buffer = sound.createBuffer(channels, frames, facts.rate);
                for (let channel = 0; channel < channels; channel += 1) {
                    const data = buffer.getChannelData(channel);
                    for (let index = 0; index < frames; index += 1) data[index] = values[index * channels + channel] / 32768;
                }
                const node = sound.createBufferSource();
                node.buffer = buffer;
                if (channels === 1) node.connect(gains[0]);
                else {
                    const splitter = sound.createChannelSplitter(channels);
                    node.connect(splitter);
                    gains.forEach((gain, index) => splitter.connect(gain, index));
                }
                when = Math.max(when, sound.currentTime + 0.03);
                node.start(when);
                plan.push({ node, at, when, frames });
                when += frames / facts.rate;
                at += frames;
                if (plan.length === 1) follow(mine);
                while (mine === run && when - sound.currentTime > 25) await pause(400);
                if (mine !== run) return;
            }
        }
        while (mine === run && sound.currentTime < when) await pause(60);
        if (mine === run) stop();
    };
    const follow = (mine) => {
        if (mine !== run) return;
        const current = [...plan].reverse().find((entry) => entry.when <= sound.currentTime);
        if (current) {
            line = within(current.at + Math.min(current.frames, (sound.currentTime - current.when) * facts.rate));
            one('[data-place]').textContent = clock(line);
            if (line > view.until || line < view.from) look(line - (view.until - view.from) * 0.05, line + (view.until - view.from) * 0.95);
            else draw();
        }
        window.requestAnimationFrame(() => follow(mine));
    };
    const toggle = () => (root.dataset.playing ? stop() : play([[line >= facts.samples ? 0 : line, facts.samples]]));
    const join = (before, after) => {
        const span = 2 * facts.rate;
        play([
            [Math.max(before[0], before[1] - span), before[1]],
            [after[0], Math.min(after[1], after[0] + span)],
        ]);
    };
    const nearestJoin = () => {
        const ranges = result();
        if (ranges.length < 2) {
            say('There is no join: only one piece is heard.');

            return;
        }
        const distances = ranges.slice(0, -1).map(([, until], index) => [Math.abs(until - line), index]);
        const [, index] = distances.sort((a, b) => a[0] - b[0])[0];
        join(ranges[index], ranges[index + 1]);
    };

    // ---- showing everything that is not drawn ----
    const button = (text, label, press) => {
        const made = document.createElement('button');
        made.type = 'button';
        made.className = 'act act-quiet';
        made.textContent = text;
        made.setAttribute('aria-label', label);
        made.onclick = press;

        return made;
    };
    const cell = (row, ...children) => {
        const made = row.insertCell();
        made.append(...children);

        return made;
    };
    const time = (value, label, set) => {
        const field = document.createElement('input');
        field.type = 'text';
        field.className = 'num';
        field.size = 11;
        field.value = clock(value);
        field.title = `${value} samples`;
        field.setAttribute('aria-label', label);
        field.onchange = () => {
            const sample = parse(field.value);
            if (sample === null) {
                say(
                    `“${field.value}” is no time; write it like 1:02.5, 62.5, 48000# for samples`.concat(
                        facts.frames > 0 ? ' or 250f for pictures.' : '.',
                    ),
                );
                field.value = clock(value);
            } else set(within(sample));
        };

        return field;
    };
    const replace = (index, next) => {
        const piece = { ...now.pieces[index], ...next };
        if (piece.until <= piece.from) {
            say('A piece must end after it begins.');
            show();

            return;
        }
        change({ pieces: now.pieces.map((one_, other) => (other === index ? piece : one_)) });
    };
    const table = () => {
        const shown = one('[data-pieces-table]');
        const body = one('[data-pieces-table] tbody');
        shown.hidden = now.pieces.length === 0;
        body.replaceChildren();
        now.pieces.forEach((piece, index) => {
            const row = body.insertRow();
            row.className = piece.keep ? 'piece-kept' : 'piece-left';
            const name = `piece ${index + 1}`;
            cell(row, String(index + 1)).className = 'num';
            cell(
                row,
                time(piece.from, `Begin of ${name}`, (from) => replace(index, { from })),
            );
            cell(
                row,
                time(piece.until, `End of ${name}`, (until) => replace(index, { until })),
            );
            cell(row, clock(piece.until - piece.from)).className = 'num';
            cell(
                row,
                button(piece.keep ? 'kept' : 'left out', `${piece.keep ? 'kept' : 'left out'}: ${name}, press to change`, () =>
                    replace(index, { keep: !piece.keep }),
                ),
            );
            const acts = document.createElement('div');
            acts.className = 'piece-acts';
            cell(row, acts);
            acts.append(
                button('Hear', `Hear ${name}`, () => play([[piece.from, piece.until]])),
                button('⇤', `To the start of ${name}`, () => go(piece.from)),
                button('⇥', `To the end of ${name}`, () => go(piece.until)),
                button('Remove', `Remove ${name}`, () => change({ pieces: now.pieces.filter((_one_, other) => other !== index) })),
            );
            const following = now.pieces.slice(index + 1).find((later) => later.keep);
            if (piece.keep && following)
                acts.append(
                    button('Join', `Hear the join after ${name}`, () => join([piece.from, piece.until], [following.from, following.until])),
                );
            if (index > 0 && piece.keep)
                acts.append(
                    button('Earlier', `Put ${name} one place earlier`, () =>
                        change({
                            pieces: now.pieces.map((one_, other) =>
                                other === index ? now.pieces[index - 1] : other === index - 1 ? piece : one_,
                            ),
                        }),
                    ),
                );
        });
        const ranges = result();
        const total = ranges.reduce((sum, [from, until]) => sum + until - from, 0);
        one('[data-total]').textContent = `${clock(total)}${ranges.length > 1 ? ` in ${ranges.length}` : ''}`;
        const link = new URL(root.dataset.order, location.href);
        link.searchParams.set('sources', facts.source);
        link.searchParams.set('pieces', `${facts.source}:${ranges.map(([from, until]) => `${from}#-${until}#`).join(',')}`);
        if (root.dataset.one === '0') link.searchParams.set('track', facts.track);
        one('[data-to-order]').href = link.href;
        // The button above means the same, once there are pieces.
        const put = document.querySelector('[data-put]');
        if (put) {
            put.dataset.whole ??= put.href;
            put.href = now.pieces.length > 0 ? link.href : put.dataset.whole;
        }
    };
    const show = () => {
        one('[data-begin]').value = clock(now.begin);
        one('[data-end]').value = clock(now.end);
        one('[data-length]').value = clock(now.end - now.begin);
        one('[data-undo]').disabled = past.length === 0;
        one('[data-redo]').disabled = future.length === 0;
        one('[data-place]').textContent = clock(line);
        table();
        draw();
    };
    const go = (sample) => {
        line = within(sample);
        if (root.dataset.playing) play([[line, facts.samples]]);
        if (line < view.from || line > view.until) look(line - (view.until - view.from) / 2, line + (view.until - view.from) / 2);
        show();
    };
    const piece = (keep) => {
        if (now.end - now.begin < 1) {
            say('Nothing is marked: set a begin and an end first.');

            return;
        }
        change({ pieces: [...now.pieces, { from: now.begin, until: now.end, keep }] });
    };
    const edge = (direction) => {
        const edges = [...new Set([0, facts.samples, now.begin, now.end, ...now.pieces.flatMap((one_) => [one_.from, one_.until])])].sort(
            (a, b) => a - b,
        );
        const found = direction > 0 ? edges.find((sample) => sample > line) : [...edges].reverse().find((sample) => sample < line);
        if (found !== undefined) go(found);
    };
    const nudge = (samples) => mark(last, now[last] + samples);
    const zero = async () => {
        const from = now[last];
        const values = await decode(from, Math.min(facts.samples - from, facts.rate));
        for (let index = 1; index * channels < values.length; index += 1) {
            if (values[(index - 1) * channels] < 0 !== values[index * channels] < 0) {
                mark(last, from + index);

                return;
            }
        }
        say('There is no crossing of zero in the next second.');
    };
    const silences = async () => {
        const answer = await fetch(
            `${root.dataset.silences}?${new URLSearchParams({
                level: one('[data-silence-level]').value.replace('−', '-').replace(',', '.'),
                least: one('[data-silence-least]').value.replace(',', '.'),
            })}`,
        );
        const told = await answer.json();
        if (!told.silences) say(told.says);

        return told.silences || null;
    };

    // ---- hands ----
    const sampleAt = (event) => {
        const box = canvases[0].getBoundingClientRect();

        return within(view.from + ((event.clientX - box.left) / box.width) * (view.until - view.from));
    };
    let drag = null;
    canvases.forEach((canvas) => {
        canvas.addEventListener('pointerdown', (event) => {
            const at = sampleAt(event);
            const near = ((view.until - view.from) / canvas.getBoundingClientRect().width) * 6;
            const held =
                Math.abs(at - now.begin) < near && now.begin > 0
                    ? 'begin'
                    : Math.abs(at - now.end) < near && now.end < facts.samples
                      ? 'end'
                      : null;
            drag = { at, held, moved: false, before: now };
            canvas.setPointerCapture(event.pointerId);
            area.focus({ preventScroll: true });
        });
        canvas.addEventListener('pointermove', (event) => {
            if (!drag) return;
            const at = sampleAt(event);
            if (Math.abs(at - drag.at) < ((view.until - view.from) / canvas.getBoundingClientRect().width) * 3 && !drag.moved) return;
            drag.moved = true;
            const fixed = drag.held === 'begin' ? drag.before.end : drag.held === 'end' ? drag.before.begin : drag.at;
            now = { ...now, begin: Math.min(fixed, at), end: Math.max(fixed, at) };
            show();
        });
        canvas.addEventListener('pointerup', (event) => {
            if (!drag) return;
            const done = drag;
            drag = null;
            if (done.moved) {
                const marked = now;
                now = done.before;
                last = 'end';
                change({ begin: marked.begin, end: marked.end });
            } else go(sampleAt(event));
        });
        canvas.addEventListener(
            'wheel',
            (event) => {
                if (!event.ctrlKey && Math.abs(event.deltaX) <= Math.abs(event.deltaY) && !event.shiftKey) return;
                event.preventDefault();
                if (event.ctrlKey) zoom(event.deltaY > 0 ? 1.25 : 0.8, sampleAt(event));
                else {
                    const by = ((event.deltaX || event.deltaY) / 400) * (view.until - view.from);
                    look(view.from + by, view.until + by);
                }
            },
            { passive: false },
        );
    });
    const onField = (selector, set) => {
        one(selector).onchange = (event) => {
            const sample = parse(event.target.value);
            if (sample === null) say(`“${event.target.value}” is no time; write it like 1:02.5, 62.5 or 48000# for samples.`);
            else set(sample);
            show();
        };
    };
    onField('[data-begin]', (sample) => mark('begin', sample));
    onField('[data-end]', (sample) => mark('end', sample));
    onField('[data-length]', (sample) => mark('end', now.begin + sample));
    one('[data-play]').onclick = toggle;
    one('[data-hear-marked]').onclick = () => play([[now.begin, now.end]]);
    one('[data-hear-all]').onclick = () => play(result());
    one('[data-closer]').onclick = () => zoom(0.5);
    one('[data-farther]').onclick = () => zoom(2);
    one('[data-whole]').onclick = () => look(0, facts.samples);
    one('[data-window]').oninput = (event) => {
        const length = view.until - view.from;
        const from = (Number(event.target.value) / 1000) * (facts.samples - length);
        look(from, from + length);
    };
    one('[data-keep]').onclick = () => piece(true);
    one('[data-drop]').onclick = () => piece(false);
    one('[data-undo]').onclick = () => step(past, future);
    one('[data-redo]').onclick = () => step(future, past);
    one('[data-keys]').onclick = () => one('[data-keys-dialog]').showModal();
    /** A piece of each chapter, up to where the next begins or, without gaps, up to where its own music ends. */
    const byChapters = (ends) => {
        const starts = facts.chapters.map((seconds) => within(seconds * facts.rate));
        const until = (index) =>
            Math.min(
                starts[index + 1] ?? facts.samples,
                ends[index] === null || ends[index] === undefined ? facts.samples : within(ends[index] * facts.rate),
            );
        change({
            pieces: starts.map((from, index) => ({ from, until: until(index), keep: true })).filter((one_) => one_.until > one_.from),
        });
    };
    one('[data-by-chapters]')?.addEventListener('click', () => byChapters([]));
    one('[data-without-gaps]')?.addEventListener('click', () => byChapters(facts.ends));
    one('[data-by-silence]').onclick = async () => {
        const found = await silences();
        if (found === null) return;
        if (found.length === 0) {
            say('There is no silence as low and as long as that.');

            return;
        }
        change({ pieces: [...now.pieces, ...found.map(([from, until]) => ({ from, until, keep: false }))] });
        say(`${found.length} ${found.length === 1 ? 'silence' : 'silences'} left out.`);
    };
    const hearing = () => {
        all('[data-channel]').forEach((press) => press.setAttribute('aria-pressed', String(!silent.has(Number(press.dataset.channel)))));
        if (sound) mute();
        draw();
    };
    const silence = (channel) => {
        if (silent.has(channel)) silent.delete(channel);
        else silent.add(channel);
        hearing();
    };
    /** A channel by itself; where it is that already, all of them again. */
    const alone = (channel) => {
        const already = !silent.has(channel) && silent.size === channels - 1;
        facts.letters.forEach((_letter, index) => (already || index === channel ? silent.delete(index) : silent.add(index)));
        hearing();
    };
    all('[data-channel]').forEach((press) => {
        press.onclick = (event) => (event.shiftKey ? alone : silence)(Number(press.dataset.channel));
    });
    const keys = {
        ' ': toggle,
        b: () => mark('begin', line),
        e: () => mark('end', line),
        z: zero,
        p: () => piece(true),
        x: () => piece(false),
        h: () => play([[now.begin, now.end]]),
        n: nearestJoin,
        ',': () => edge(-1),
        '.': () => edge(1),
        u: () => step(past, future),
        r: () => step(future, past),
        '+': () => zoom(0.5),
        '-': () => zoom(2),
        0: () => look(0, facts.samples),
        '?': () => one('[data-keys-dialog]').showModal(),
        s: async () => {
            const found = (await silences())?.find(([from]) => from > now[last]);
            if (found) mark(last, found[0]);
            else say('There is no further silence as low and as long as that.');
        },
    };
    document.addEventListener('keydown', (event) => {
        if (!root.isConnected || event.ctrlKey || event.metaKey || event.target.closest('input, select, textarea, dialog')) return;
        if (event.target.closest('button, a, summary') && (event.key === ' ' || event.key === 'Enter')) return;
        if (/^Digit[1-9]$/.test(event.code) && !event.altKey && Number(event.code.slice(5)) <= channels) {
            (event.shiftKey ? alone : silence)(Number(event.code.slice(5)) - 1);
            event.preventDefault();

            return;
        }
        const by = event.altKey ? 1 : event.shiftKey ? Math.round(facts.rate / (facts.frames || 25)) : Math.round(facts.rate / 100);
        if (event.key === 'ArrowLeft' || event.key === 'ArrowRight') nudge(event.key === 'ArrowLeft' ? -by : by);
        else if (!event.altKey && keys[event.key.length === 1 ? event.key.toLowerCase() : event.key])
            keys[event.key.length === 1 ? event.key.toLowerCase() : event.key]();
        else return;
        event.preventDefault();
    });
    new ResizeObserver(() => {
        draw();
        fetchView();
    }).observe(canvases[0]);
    show();
};

// A page that was opened while its source was still being read gets its waveforms later.
const beginAll = () => document.querySelectorAll('[data-listen]:not([data-begun])').forEach(beginListening);
document.addEventListener('htmx:afterSettle', beginAll);
beginAll();
