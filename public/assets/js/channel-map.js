// The channel map of a line: channels that come in on the left, files and their channels on the right, bands whose width is the gain.
import { isMap, readMap, writeMap } from './map-text.js';

export const startMap = (root) => {
    const form = root.closest('form');
    const select = form.elements.namedItem('layout');
    const panel = root.closest('[data-panel]')?.dataset.panel ?? '';
    const letters = JSON.parse(root.dataset.letters);
    const words = JSON.parse(root.dataset.words);
    const stage = root.querySelector('[data-map-drawing]');
    const says = root.querySelector('[data-map-says]');
    const SVG = 'http://www.w3.org/2000/svg';
    // As wide as there is room, so that nothing in it gets too small to press.
    const [NARROWEST, WIDEST] = [260, 520];
    let width = WIDEST;
    const STEP = 34;

    // files → channels → gains in decibels by the channel that comes in; a minus before it flips
    let files = [];
    const place = (file) => (files.length > 1 ? ` of ${file + 1}` : '');
    let taken = null;
    let held = null;

    const name = (count, index) =>
        count === 1 ? 'M' : count === 2 ? 'LR'[index] : count === 6 ? ['L', 'R', 'C', 'LFE', 'Ls', 'Rs'][index] : String(index + 1);

    const element = (tag, attributes, text) => {
        const made = document.createElementNS(SVG, tag);
        Object.entries(attributes).forEach(([key, value]) => made.setAttribute(key, value));
        if (text !== undefined) made.textContent = text;

        return made;
    };
    const pressable = (node, label, press, keys) => {
        node.setAttribute('role', 'button');
        node.setAttribute('tabindex', '0');
        node.setAttribute('aria-label', label);
        node.addEventListener('click', press);
        node.addEventListener('keydown', (event) => {
            if (event.key === 'Enter' || event.key === ' ') press();
            else if (!keys?.(event.key)) return;
            event.preventDefault();
        });

        return node;
    };

    const commit = (focus) => {
        const text = writeMap(files);
        const word = Object.keys(words).find((one) => words[one] === text && [...select.options].some((option) => option.value === one));
        const value = word ?? text;
        if (![...select.options].some((option) => option.value === value)) select.add(new Option(`By hand: ${value}`, value));
        select.value = value;
        draw(focus);
        form.dispatchEvent(new Event('octavox:reshaped', { bubbles: true }));
    };
    const join = (input, file, row) => {
        const gains = files[file][row];
        if (gains.has(input)) gains.delete(input);
        else gains.set(input, { decibels: 0, flipped: false });
        taken = null;
        held = gains.has(input) ? [file, row, input] : null;
        commit(`${panel}out-${file}-${row}`);
    };

    const draw = (focus) => {
        const outputs = files.flatMap((rows, file) =>
            rows.map((gains, row) => ({
                file,
                row,
                gains,
                letter: name(rows.length, row),
                first: row === 0,
                last: row === rows.length - 1,
            })),
        );
        const height = Math.max(letters.length, outputs.length + (files.length - 1) * 0.6) * STEP + 16;
        const svg = element('svg', { viewBox: `0 0 ${width} ${height}`, class: 'map-drawing', role: 'group', 'aria-label': 'Channel map' });
        const left = (index) => height / 2 + (index - (letters.length - 1) / 2) * STEP;
        const total = outputs.length + (files.length - 1) * 0.6;
        const right = (index, file) => height / 2 + (index + file * 0.6 - (total - 1) / 2) * STEP;
        outputs.forEach(({ file, row, gains, letter, first, last }, index) => {
            const y = right(index, file);
            if (first)
                svg.append(
                    element(
                        'text',
                        { x: width - 34, y: y + ((files[file].length - 1) * STEP) / 2 + 4, class: 'map-file', 'text-anchor': 'start' },
                        files.length > 1 ? `${file + 1}` : '',
                    ),
                );
            gains.forEach(({ decibels, flipped }, input) => {
                const mine = held && held[0] === file && held[1] === row && held[2] === input;
                const band = pressable(
                    element('path', {
                        d: `M28 ${left(input)}C${width / 2} ${left(input)} ${width / 2} ${y} ${width - 70} ${y}`,
                        class: `band${flipped ? ' band-flipped' : ''}${mine ? ' band-held' : ''}`,
                        'stroke-width': Math.max(2, Math.min(14, 7 * 10 ** (decibels / 20))),
                        id: `${panel}band-${file}-${row}-${input}`,
                    }),
                    `${letters[input]} to ${letter}${place(file)}, ${decibels} dB${flipped ? ', flipped' : ''}`,
                    () => {
                        held = [file, row, input];
                        draw(`${panel}band-${file}-${row}-${input}`);
                    },
                    (key) => {
                        const gain = files[file][row].get(input);
                        if (key === '+' || key === '-')
                            gain.decibels = Math.max(-60, Math.min(24, Math.round((gain.decibels + (key === '+' ? 1 : -1)) * 10) / 10));
                        else if (key.toLowerCase() === 'f') gain.flipped = !gain.flipped;
                        else if (key === 'Delete' || key === 'Backspace') files[file][row].delete(input);
                        else return false;
                        held = [file, row, input];
                        commit(files[file][row].has(input) ? `${panel}band-${file}-${row}-${input}` : `${panel}out-${file}-${row}`);

                        return true;
                    },
                );
                svg.append(band);
            });
            const node = element('g', { class: 'map-node', id: `${panel}out-${file}-${row}` });
            node.append(
                element('rect', { x: width - 70, y: y - 13, width: 30, height: 26, rx: 3 }),
                element('text', { x: width - 55, y: y + 5 }, letter),
            );
            pressable(node, `${letter}${place(file)} going out${taken === null ? '' : `: join or part ${letters[taken]}`}`, () => {
                if (taken === null) says.textContent = 'Press a channel on the left first.';
                else join(taken, file, row);
            });
            svg.append(node);
            if (last && file < files.length - 1)
                svg.append(element('path', { d: `M${width - 78} ${y + STEP * 0.8}h56`, class: 'map-rule' }));
        });
        letters.forEach((letter, index) => {
            const node = element('g', { class: `map-node${taken === index ? ' map-taken' : ''}`, id: `${panel}in-${index}` });
            node.append(element('circle', { cx: 16, cy: left(index), r: 14 }), element('text', { x: 16, y: left(index) + 5 }, letter));
            node.setAttribute('aria-pressed', String(taken === index));
            svg.append(
                pressable(node, `${letter} coming in`, () => {
                    taken = taken === index ? null : index;
                    draw(`${panel}in-${index}`);
                }),
            );
        });
        stage.replaceChildren(svg);
        const gain = held === null ? null : files[held[0]]?.[held[1]]?.get(held[2]);
        says.textContent =
            taken !== null
                ? `${letters[taken]} is taken: press where it goes.`
                : gain
                  ? `${letters[held[2]]}: ${gain.decibels} dB${gain.flipped ? ', flipped' : ''}`
                  : '';
        if (focus) document.getElementById(focus)?.focus();
    };

    const follow = () => {
        const { value } = select;
        const text = words[value] ?? value;
        if (text !== writeMap(files) && isMap(text)) {
            files = readMap(text);
            taken = held = null;
            draw();
        }
    };
    root.querySelector('[data-map-channel]').onclick = () => {
        files[files.length - 1].push(new Map());
        commit();
    };
    root.querySelector('[data-map-file]').onclick = () => {
        files.push([new Map()]);
        commit();
    };
    root.querySelector('[data-map-less]').onclick = () => {
        const rows = files[files.length - 1];
        if (rows.length > 1) rows.pop();
        else if (files.length > 1) files.pop();
        commit();
    };
    form.addEventListener('change', (event) => {
        if (event.target === select) follow();
    });
    files = readMap(words[select.value] ?? (isMap(select.value) ? select.value : '1'));
    draw();
    new ResizeObserver(() => {
        const room = Math.max(NARROWEST, Math.min(WIDEST, Math.round(stage.clientWidth)));
        if (stage.clientWidth > 0 && room !== width) {
            width = room;
            draw(stage.contains(document.activeElement) ? document.activeElement.id : undefined);
        }
    }).observe(stage);
};
