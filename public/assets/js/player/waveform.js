// The waveforms of a track: what the window shows of them, and how it is drawn.
import { clock } from '../times.js';

const NICE = [
    0.0001, 0.0002, 0.0005, 0.001, 0.002, 0.005, 0.01, 0.02, 0.05, 0.1, 0.2, 0.5, 1, 2, 5, 10, 15, 30, 60, 120, 300, 600, 900, 1800, 3600,
    7200,
];

const style = getComputedStyle(document.documentElement);
const colour = (name) => style.getPropertyValue(name).trim();

const size = (canvas) => {
    const ratio = window.devicePixelRatio || 1;
    const box = canvas.getBoundingClientRect();
    canvas.width = Math.max(1, Math.round(box.width * ratio));
    canvas.height = Math.max(1, Math.round(box.height * ratio));

    return canvas.getContext('2d');
};

export const waveformOf = (root, facts, { pieces, silent, line }) => {
    const area = root.querySelector('[data-waveforms]');
    const canvases = [...root.querySelectorAll('[data-canvas]')];
    const scale = root.querySelector('[data-scale]');
    const slider = root.querySelector('[data-window]');
    const channels = facts.letters.length;
    let view = { from: 0, until: Math.max(1, facts.samples) };
    let drawn = null;
    let asked = 0;

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
        const nice = NICE.find((value) => value >= wanted) || 14400;
        context.fillStyle = colour('--ink-soft');
        context.font = `${11 * ratio}px ${colour('--mono')}`;
        for (let at = Math.ceil(view.from / facts.rate / nice) * nice; at * facts.rate <= view.until; at += nice) {
            const place = x(at * facts.rate, width);
            context.fillRect(Math.round(place), 0, 1, 4 * ratio);
            context.fillText(
                nice < 1
                    ? clock(Math.round(at * facts.rate), facts.rate)
                    : clock(Math.round(at * facts.rate), facts.rate).replace(/\.\d+$/, ''),
                place + 4,
                height - 3 * ratio,
            );
        }
    };
    const draw = () => {
        const ratio = window.devicePixelRatio || 1;
        const now = pieces.now();
        canvases.forEach((canvas) => {
            const context = size(canvas);
            if (now.pieces.length > 0) pieces.result().forEach(([from, until]) => shade(context, from, until, 'rgba(20, 107, 96, .16)'));
            if (now.begin > 0 || now.end < facts.samples) shade(context, now.begin, now.end, 'rgba(109, 29, 75, .12)');
            waveform(context, Number(canvas.dataset.canvas));
            now.pieces.filter((piece) => !piece.keep).forEach((piece) => hatch(context, piece.from, piece.until));
            upright(context, now.begin, colour('--damson'), 2 * ratio);
            upright(context, now.end, colour('--damson'), 2 * ratio);
            upright(context, line(), colour('--ink'), ratio);
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
        slider.hidden = length >= facts.samples;
        slider.value = String(facts.samples > length ? Math.round((begin / (facts.samples - length)) * 1000) : 0);
        draw();
        window.clearTimeout(waiting);
        waiting = window.setTimeout(fetchView, 60);
    };
    const zoom = (factor, around = line() >= view.from && line() <= view.until ? line() : (view.from + view.until) / 2) =>
        look(around - (around - view.from) * factor, around + (view.until - around) * factor);

    slider.oninput = (event) => {
        const length = view.until - view.from;
        const from = (Number(event.target.value) / 1000) * (facts.samples - length);
        look(from, from + length);
    };
    new ResizeObserver(() => {
        draw();
        fetchView();
    }).observe(canvases[0]);

    return { canvases, view: () => view, draw, look, zoom, whole: () => look(0, facts.samples) };
};
