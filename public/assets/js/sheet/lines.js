// The lines of an order: opened, marked, mended by one press, and gone through by keyboard.
import { startMap } from '../channel-map.js';
import { all, one, stretch } from '../dom.js';
import { ask } from './requests.js';

const rows = one('#rows');
const sheet = one('#sheet');
const address = sheet.dataset.sheet;
const memory = `octavox-open${address}`;
const lines = () => all('.line', rows);
const isOpen = (line) => !one('.line-open', line).hidden;

// ---- a line is opened ----
const startMaps = () =>
    all('[data-map]:not([data-begun])').forEach((map) => {
        map.dataset.begun = '1';
        startMap(map);
    });
/** Lines whose every field is shown. */
const whole = new Set();
const fill = async (line) => {
    const place = one('.line-open', line);
    await htmx.ajax('GET', `${line.dataset.url}${whole.has(line.id) ? '?all=1' : ''}`, {
        source: place,
        target: place,
        swap: 'morph:innerHTML',
    });
    startMaps();
};
const open = async (line, isShown) => {
    one('.line-open', line).hidden = !isShown;
    one('[data-open]', line).setAttribute('aria-expanded', String(isShown));
    const shown = lines()
        .filter(isOpen)
        .map((other) => other.dataset.line);
    sessionStorage.setItem(memory, shown.join(','));
    if (isShown) await fill(line);
};
document.addEventListener('htmx:responseError', (event) => {
    if (event.target.matches?.('.line-open')) event.target.innerHTML = '<p class="fault">This line is not on the order any more.</p>';
});
/** What is open follows what was changed elsewhere. */
export const follow = () => lines().filter(isOpen).forEach(fill);

// ---- marks, and what one press does ----
let last = null;
const mark = (boxes, on) => {
    boxes.forEach((box) => {
        box.checked = on;
        box.defaultChecked = on;
    });
    ask('POST', `${address}/marks`, { lines: boxes.map((box) => box.value).join(','), on: on ? '1' : '0' });
};
const presses = {
    '[data-open]': (_press, line) => open(line, !isOpen(line)),
    '[data-mark]': (press) => ask('POST', `${address}/marks`, { which: press.dataset.mark }),
    '[data-remedy]': (press, line) => ask('PATCH', line.dataset.url, { scope: 'line', ...JSON.parse(press.dataset.remedy) }),
    '[data-back]': (press, line) => ask('PATCH', line.dataset.url, { scope: 'line', back: press.dataset.back }),
    '[data-alike]': (press) => ask('PATCH', `${address}/alike`, { fields: press.dataset.alike }),
    '[data-all-fields]': (_press, line) => fill(whole.add(line.id) && line),
};
document.addEventListener('click', (event) => {
    const { target, shiftKey } = event;
    if (target.matches?.('[data-mark-line]')) {
        mark(stretch(all('[data-mark-line]', rows), last, target, shiftKey), target.checked);
        last = target.value;

        return;
    }
    const [selector, does] = Object.entries(presses).find(([one_]) => target.closest?.(one_)) ?? [];
    if (does) does(target.closest(selector), target.closest('.line'));
});

// ---- keys: up and down from row to row, M marks, O opens, ? tells them ----
const keys = one('[data-sheet-keys-dialog]');
document.addEventListener('click', (event) => {
    if (event.target.closest?.('[data-sheet-keys]')) keys.showModal();
});
document.addEventListener('keydown', (event) => {
    if (event.key === '?' && !event.target.matches?.('input:not([type=checkbox]), textarea, select')) keys.showModal();
});
document.addEventListener('keydown', (event) => {
    const row = event.target.closest?.('.row-closed');
    if (!row || event.target.matches('input[type=text]') || event.ctrlKey || event.metaKey || event.altKey) return;
    const line = row.closest('.line');
    const step = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (step) {
        const next = lines()[lines().indexOf(line) + step];
        const box = next && one('[data-mark-line]', next);
        if (!box) return;
        if (event.shiftKey) mark([one('[data-mark-line]', line), box], true);
        last = box.value;
        box.focus();
        event.preventDefault();
    } else if (event.key.toLowerCase() === 'm') one('[data-mark-line]', line).click();
    else if (event.key.toLowerCase() === 'o') open(line, !isOpen(line));
});

const before = (sessionStorage.getItem(memory) ?? '').split(',');
lines()
    .filter((line) => before.includes(line.dataset.line) || location.hash === `#line-${line.dataset.line}`)
    .forEach((line) => open(line, true));
startMaps();
