// The table of pieces: each with its times, and what can be done with it.
import { clock, parseTime } from '../times.js';

export const tableOf = (root, facts, { pieces, playing, go, say, show }) => {
    const shown = root.querySelector('[data-pieces-table]');
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
        field.value = clock(value, facts.rate);
        field.title = `${value} samples`;
        field.setAttribute('aria-label', label);
        field.onchange = () => {
            const sample = parseTime(field.value, facts);
            if (sample === null) {
                say(
                    `“${field.value}” is no time; write it like 1:02.5, 62.5, 48000# for samples`.concat(
                        facts.frames > 0 ? ' or 250f for pictures.' : '.',
                    ),
                );
                field.value = clock(value, facts.rate);
            } else set(pieces.within(sample));
        };

        return field;
    };
    const replace = (index, next) => {
        const piece = { ...pieces.now().pieces[index], ...next };
        if (piece.until <= piece.from) {
            say('A piece must end after it begins.');
            show();

            return;
        }
        pieces.change({ pieces: pieces.now().pieces.map((one_, other) => (other === index ? piece : one_)) });
    };
    const draw = () => {
        const body = shown.querySelector('tbody');
        shown.hidden = pieces.now().pieces.length === 0;
        body.replaceChildren();
        pieces.now().pieces.forEach((piece, index) => {
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
            cell(row, clock(piece.until - piece.from, facts.rate)).className = 'num';
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
                button('Hear', `Hear ${name}`, () => playing.play([[piece.from, piece.until]])),
                button('⇤', `To the start of ${name}`, () => go(piece.from)),
                button('⇥', `To the end of ${name}`, () => go(piece.until)),
                button('Remove', `Remove ${name}`, () =>
                    pieces.change({ pieces: pieces.now().pieces.filter((_one_, other) => other !== index) }),
                ),
            );
            const following = pieces
                .now()
                .pieces.slice(index + 1)
                .find((later) => later.keep);
            if (piece.keep && following)
                acts.append(
                    button('Join', `Hear the join after ${name}`, () =>
                        playing.join([piece.from, piece.until], [following.from, following.until]),
                    ),
                );
            if (index > 0 && piece.keep)
                acts.append(
                    button('Earlier', `Put ${name} one place earlier`, () =>
                        pieces.change({
                            pieces: pieces
                                .now()
                                .pieces.map((one_, other) =>
                                    other === index ? pieces.now().pieces[index - 1] : other === index - 1 ? piece : one_,
                                ),
                        }),
                    ),
                );
        });
    };

    return { draw };
};
