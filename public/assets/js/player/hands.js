// Marks by pointer and wheel, and everything by keyboard.

export const onPointer = (root, facts, { pieces, waveform, go }) => {
    const area = root.querySelector('[data-waveforms]');
    const { canvases } = waveform;
    const perPixel = (canvas) => (waveform.view().until - waveform.view().from) / canvas.getBoundingClientRect().width;
    const sampleAt = (event) => {
        const box = canvases[0].getBoundingClientRect();

        const { from, until } = waveform.view();

        return pieces.within(from + ((event.clientX - box.left) / box.width) * (until - from));
    };
    let drag = null;
    canvases.forEach((canvas) => {
        canvas.addEventListener('pointerdown', (event) => {
            const at = sampleAt(event);
            const now = pieces.now();
            const near = perPixel(canvas) * 6;
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
            if (Math.abs(at - drag.at) < perPixel(canvas) * 3 && !drag.moved) return;
            drag.moved = true;
            const fixed = drag.held === 'begin' ? drag.before.end : drag.held === 'end' ? drag.before.begin : drag.at;
            pieces.drag(Math.min(fixed, at), Math.max(fixed, at));
        });
        canvas.addEventListener('pointerup', (event) => {
            if (!drag) return;
            const done = drag;
            drag = null;
            if (done.moved) pieces.dropped(done.before);
            else go(sampleAt(event));
        });
        canvas.addEventListener(
            'wheel',
            (event) => {
                if (!event.ctrlKey && Math.abs(event.deltaX) <= Math.abs(event.deltaY) && !event.shiftKey) return;
                event.preventDefault();
                if (event.ctrlKey) waveform.zoom(event.deltaY > 0 ? 1.25 : 0.8, sampleAt(event));
                else {
                    const { from, until } = waveform.view();
                    const by = ((event.deltaX || event.deltaY) / 400) * (until - from);
                    waveform.look(from + by, until + by);
                }
            },
            { passive: false },
        );
    });
};

/** What stands at each key; digits mute channels, arrows move the mark that was set last. */
export const onKeys = (root, facts, keys, { silence, alone, nudge }) => {
    document.addEventListener('keydown', (event) => {
        if (!root.isConnected || event.ctrlKey || event.metaKey || event.target.closest('input, select, textarea, dialog')) return;
        if (event.target.closest('button, a, summary') && (event.key === ' ' || event.key === 'Enter')) return;
        if (/^Digit[1-9]$/.test(event.code) && !event.altKey && Number(event.code.slice(5)) <= facts.letters.length) {
            (event.shiftKey ? alone : silence)(Number(event.code.slice(5)) - 1);
            event.preventDefault();

            return;
        }
        const by = event.altKey ? 1 : event.shiftKey ? Math.round(facts.rate / (facts.frames || 25)) : Math.round(facts.rate / 100);
        const key = event.key.length === 1 ? event.key.toLowerCase() : event.key;
        if (event.key === 'ArrowLeft' || event.key === 'ArrowRight') nudge(event.key === 'ArrowLeft' ? -by : by);
        else if (!event.altKey && keys[key]) keys[key]();
        else return;
        event.preventDefault();
    });
};
