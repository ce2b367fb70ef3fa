// What is marked and kept of a track, with every step before and after, through reloads of the page.

const kept = (store) => {
    try {
        return JSON.parse(sessionStorage.getItem(store)) || {};
    } catch {
        return {};
    }
};

export const piecesOf = ({ source, track, samples }, changed) => {
    const store = `octavox-pieces-${source}-${track}`;
    const before = kept(store);
    const past = before.past || [];
    const future = before.future || [];
    let now = before.now || { begin: 0, end: samples, pieces: [] };
    let last = 'begin';

    const save = () => {
        sessionStorage.setItem(store, JSON.stringify({ past, now, future }));
        changed();
    };
    const step = (from, to) => {
        if (from.length === 0) return;
        to.push(now);
        now = from.pop();
        save();
    };
    const change = (next) => {
        past.push(now);
        future.length = 0;
        now = { ...now, ...next };
        save();
    };
    const within = (sample) => Math.max(0, Math.min(samples, Math.round(sample)));

    return {
        now: () => now,
        last: () => last,
        within,
        change,
        canUndo: () => past.length > 0,
        canRedo: () => future.length > 0,
        undo: () => step(past, future),
        redo: () => step(future, past),

        mark: (which, sample) => {
            const place = within(sample);
            last = which;
            change(which === 'begin' ? { begin: place, end: Math.max(place, now.end) } : { end: place, begin: Math.min(place, now.begin) });
        },

        /** While a mark is dragged: shown, and no step of its own. */
        drag: (begin, end) => {
            now = { ...now, begin, end };
            changed();
        },

        dropped: (start) => {
            const { begin, end } = now;
            now = start;
            last = 'end';
            change({ begin, end });
        },

        /** Stretches that are heard in the end: what is kept, without what is left out. */
        result: () => {
            const keeps = now.pieces.filter((piece) => piece.keep);
            let ranges = keeps.length > 0 ? keeps.map((piece) => [piece.from, piece.until]) : [[0, samples]];
            now.pieces
                .filter((piece) => !piece.keep)
                .forEach((drop) => {
                    ranges = ranges.flatMap(([from, until]) =>
                        [
                            [from, Math.min(until, drop.from)],
                            [Math.max(from, drop.until), until],
                        ].filter(([a, b]) => b > a),
                    );
                });

            return ranges;
        },

        /** Places to go to, rising: marks and the ends of pieces. */
        edges: () =>
            [...new Set([0, samples, now.begin, now.end, ...now.pieces.flatMap((piece) => [piece.from, piece.until])])].sort(
                (a, b) => a - b,
            ),
    };
};
