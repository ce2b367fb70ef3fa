// Waveforms, marks, pieces and playing of one sound track. All places are samples from where the sound begins.
import { clock, parseTime } from '../times.js';
import { onKeys, onPointer } from './hands.js';
import { piecesOf } from './pieces.js';
import { playingOf } from './playing.js';
import { tableOf } from './table.js';
import { waveformOf } from './waveform.js';

const factsOf = ({ dataset }) => ({
    source: dataset.source,
    track: dataset.track,
    rate: Number(dataset.rate),
    samples: Number(dataset.samples),
    letters: JSON.parse(dataset.letters),
    frames: Number(dataset.frames),
    chapters: JSON.parse(dataset.chapters),
    ends: JSON.parse(dataset.ends),
});

const listen = (root) => {
    root.dataset.begun = '1';
    if (!root.querySelector('[data-waveforms]')) return;
    const one = (selector) => root.querySelector(selector);
    const all = (selector) => [...root.querySelectorAll(selector)];
    const facts = factsOf(root);
    const channels = facts.letters.length;
    const silent = new Set();
    let line = 0;
    const say = (text) => {
        one('[data-says]').textContent = text;
    };
    const pieces = piecesOf(facts, () => show());
    const waveform = waveformOf(root, facts, { pieces, silent, line: () => line });
    const { look } = waveform;
    const playing = playingOf(root, facts, {
        silent,
        say,
        reached: (sample) => {
            const { from, until } = waveform.view();
            line = pieces.within(sample);
            one('[data-place]').textContent = clock(line, facts.rate);
            if (line > until || line < from) look(line - (until - from) * 0.05, line + (until - from) * 0.95);
            else waveform.draw();
        },
    });
    const toggle = () => (playing.isPlaying() ? playing.stop() : playing.play([[line >= facts.samples ? 0 : line, facts.samples]]));
    const go = (sample) => {
        const { from, until } = waveform.view();
        line = pieces.within(sample);
        if (playing.isPlaying()) playing.play([[line, facts.samples]]);
        if (line < from || line > until) look(line - (until - from) / 2, line + (until - from) / 2);
        show();
    };
    const table = tableOf(root, facts, { pieces, playing, go, say, show: () => show() });
    const links = () => {
        const ranges = pieces.result();
        const total = ranges.reduce((sum, [from, until]) => sum + until - from, 0);
        one('[data-total]').textContent = `${clock(total, facts.rate)}${ranges.length > 1 ? ` in ${ranges.length}` : ''}`;
        const link = new URL(root.dataset.order, location.href);
        link.searchParams.set('sources', facts.source);
        link.searchParams.set('pieces', `${facts.source}:${ranges.map(([from, until]) => `${from}#-${until}#`).join(',')}`);
        if (root.dataset.one === '0') link.searchParams.set('track', facts.track);
        one('[data-to-order]').href = link.href;
        // The button above means the same, once there are pieces.
        const put = document.querySelector('[data-put]');
        if (put) {
            put.dataset.whole ??= put.href;
            put.href = pieces.now().pieces.length > 0 ? link.href : put.dataset.whole;
        }
    };
    const show = () => {
        const { begin, end } = pieces.now();
        one('[data-begin]').value = clock(begin, facts.rate);
        one('[data-end]').value = clock(end, facts.rate);
        one('[data-length]').value = clock(end - begin, facts.rate);
        one('[data-undo]').disabled = !pieces.canUndo();
        one('[data-redo]').disabled = !pieces.canRedo();
        one('[data-place]').textContent = clock(line, facts.rate);
        table.draw();
        links();
        waveform.draw();
    };
    const nearestJoin = () => {
        const ranges = pieces.result();
        if (ranges.length < 2) {
            say('There is no join: only one piece is heard.');

            return;
        }
        const distances = ranges.slice(0, -1).map(([, until], index) => [Math.abs(until - line), index]);
        const [, index] = distances.sort((a, b) => a[0] - b[0])[0];
        playing.join(ranges[index], ranges[index + 1]);
    };

    const piece = (keep) => {
        if (pieces.now().end - pieces.now().begin < 1) {
            say('Nothing is marked: set a begin and an end first.');

            return;
        }
        pieces.change({ pieces: [...pieces.now().pieces, { from: pieces.now().begin, until: pieces.now().end, keep }] });
    };
    const edge = (direction) => {
        const edges = pieces.edges();
        const found = direction > 0 ? edges.find((sample) => sample > line) : [...edges].reverse().find((sample) => sample < line);
        if (found !== undefined) go(found);
    };
    const nudge = (samples) => pieces.mark(pieces.last(), pieces.now()[pieces.last()] + samples);
    const zero = async () => {
        const from = pieces.now()[pieces.last()];
        const values = await playing.decode(from, Math.min(facts.samples - from, facts.rate));
        for (let index = 1; index * channels < values.length; index += 1) {
            if (values[(index - 1) * channels] < 0 !== values[index * channels] < 0) {
                pieces.mark(pieces.last(), from + index);

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

    const onField = (selector, set) => {
        one(selector).onchange = (event) => {
            const sample = parseTime(event.target.value, facts);
            if (sample === null) say(`“${event.target.value}” is no time; write it like 1:02.5, 62.5 or 48000# for samples.`);
            else set(sample);
            show();
        };
    };
    onField('[data-begin]', (sample) => pieces.mark('begin', sample));
    onField('[data-end]', (sample) => pieces.mark('end', sample));
    onField('[data-length]', (sample) => pieces.mark('end', pieces.now().begin + sample));
    one('[data-play]').onclick = toggle;
    one('[data-hear-marked]').onclick = () => playing.play([[pieces.now().begin, pieces.now().end]]);
    one('[data-hear-all]').onclick = () => playing.play(pieces.result());
    one('[data-closer]').onclick = () => waveform.zoom(0.5);
    one('[data-farther]').onclick = () => waveform.zoom(2);
    one('[data-whole]').onclick = waveform.whole;
    one('[data-keep]').onclick = () => piece(true);
    one('[data-drop]').onclick = () => piece(false);
    one('[data-undo]').onclick = () => pieces.undo();
    one('[data-redo]').onclick = () => pieces.redo();
    one('[data-keys]').onclick = () => one('[data-keys-dialog]').showModal();
    /** A piece of each chapter, up to where the next begins or, without gaps, up to where its own music ends. */
    const byChapters = (ends) => {
        const starts = facts.chapters.map((seconds) => pieces.within(seconds * facts.rate));
        const until = (index) =>
            Math.min(
                starts[index + 1] ?? facts.samples,
                ends[index] === null || ends[index] === undefined ? facts.samples : pieces.within(ends[index] * facts.rate),
            );
        pieces.change({
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
        pieces.change({ pieces: [...pieces.now().pieces, ...found.map(([from, until]) => ({ from, until, keep: false }))] });
        say(`${found.length} ${found.length === 1 ? 'silence' : 'silences'} left out.`);
    };
    const hearing = () => {
        all('[data-channel]').forEach((press) => press.setAttribute('aria-pressed', String(!silent.has(Number(press.dataset.channel)))));
        playing.mute();
        waveform.draw();
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
        b: () => pieces.mark('begin', line),
        e: () => pieces.mark('end', line),
        z: zero,
        p: () => piece(true),
        x: () => piece(false),
        h: () => playing.play([[pieces.now().begin, pieces.now().end]]),
        n: nearestJoin,
        ',': () => edge(-1),
        '.': () => edge(1),
        u: () => pieces.undo(),
        r: () => pieces.redo(),
        '+': () => waveform.zoom(0.5),
        '-': () => waveform.zoom(2),
        0: waveform.whole,
        '?': () => one('[data-keys-dialog]').showModal(),
        s: async () => {
            const found = (await silences())?.find(([from]) => from > pieces.now()[pieces.last()]);
            if (found) pieces.mark(pieces.last(), found[0]);
            else say('There is no further silence as low and as long as that.');
        },
    };
    onPointer(root, facts, { pieces, waveform, go });
    onKeys(root, facts, keys, { silence, alone, nudge });
    show();
};

// A page that was opened while its source was still being read gets its waveforms later.
const listenToAll = () => document.querySelectorAll('[data-listen]:not([data-begun])').forEach(listen);
document.addEventListener('htmx:afterSettle', listenToAll);
listenToAll();
