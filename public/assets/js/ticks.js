// Ticks among the sources are lines of the draft: the server keeps them from the first one on.
import { boxesOf, showEvery } from './choosing.js';
import { one, stretch } from './dom.js';

const underway = new Map();
const ticks = (boxes, on) => {
    const list = one('[data-ticks]');
    const ids = boxes.map((box) => box.value);
    ids.forEach((id) => underway.set(id, on));
    boxes.forEach((box) => {
        box.checked = on;
    });
    showEvery(list);
    htmx.ajax('POST', list.dataset.ticks, { values: { sources: ids.join(','), on: on ? 1 : 0 }, swap: 'none' }).finally(() =>
        ids.forEach((id) => underway.delete(id)),
    );
};
document.addEventListener('change', (event) => {
    const list = event.target.closest('[data-ticks]');
    if (!list || event.target.type !== 'checkbox') return;
    ticks(event.target.matches('[data-pick-all]') ? boxesOf(list) : [event.target], event.target.checked);
});
document.addEventListener('click', (event) => {
    if (!event.target.matches('[data-pick-none]')) return;
    boxesOf(one('[data-ticks]')).forEach((box) => {
        box.checked = false;
    });
    htmx.ajax('POST', one('[data-ticks]').dataset.ticks, { values: { sources: '', on: 0 }, swap: 'none' }).then(() =>
        showEvery(one('[data-ticks]')),
    );
});
// From the last tick to the first: Shift takes all between.
let last = null;
document.addEventListener('click', (event) => {
    const list = event.target.closest?.('[data-ticks]');
    if (!list || !event.target.matches('tbody input[type=checkbox]')) return;
    const boxes = stretch(boxesOf(list), last, event.target, event.shiftKey);
    if (boxes.length > 1) ticks(boxes, event.target.checked);
    last = event.target.value;
});
const showTicks = () => {
    const list = one('[data-ticks]');
    if (!list) return;
    boxesOf(list).forEach((box) => {
        if (underway.has(box.value)) box.checked = underway.get(box.value);
    });
    showEvery(list);
};
document.addEventListener('htmx:afterSwap', showTicks);
document.addEventListener('htmx:historyRestore', showTicks);
showTicks();
// Coming back by history shows the page as it was, out of the memory or the cache of the browser: ticks are asked for anew.
const isBack = (event) => event.persisted || performance.getEntriesByType('navigation')[0]?.type === 'back_forward';
window.addEventListener('pageshow', (event) => {
    if (isBack(event) && one('[data-ticks]')) location.reload();
});
