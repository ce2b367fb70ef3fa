// The order sheet: fields are sent as they change, and the answer is laid over what stands there.
import './morphing.js';
import { all, one } from '../dom.js';
import { changedOf, isChanged } from './fields.js';
import { follow } from './lines.js';
import { ask, isUnderway, query, whenDone } from './requests.js';

const sheet = one('#sheet');
const address = sheet.dataset.sheet;

// ---- what an answer brings with it ----
document.addEventListener('htmx:afterSettle', (event) => {
    if (event.detail.requestConfig?.elt.matches('[data-renews], #rows')) follow();
    // The name stands outside of what is renewed, so that nothing typed is ever lost to an answer on its way.
    const { name } = one('[data-name]').dataset;
    const field = one('#name');
    if (document.activeElement === field || isChanged(field)) return;
    field.value = name;
    field.defaultValue = name;
});
// A button that is gone leaves the focus to the next thing to do.
document.addEventListener('htmx:oobAfterSwap', () => {
    if (document.activeElement === document.body && hadFocus) one('#make')?.focus({ preventScroll: true });
});
let hadFocus = false;
document.addEventListener('htmx:oobBeforeSwap', () => {
    hadFocus = document.activeElement?.matches('button') ?? false;
});

// ---- placing: what was typed last is still on its way, and counts ----
let isPlacing = false;
whenDone(() => {
    if (!isPlacing) return;
    isPlacing = false;
    one('[data-place]').requestSubmit();
});
document.addEventListener('submit', (event) => {
    if (event.target.matches('#sheet, .panel-form, [data-view]')) event.preventDefault();
    if (event.target.closest('.save-as')) event.target.closest('.save-as').open = false;
    if (!event.target.matches('[data-place]')) return;
    const open = [sheet, ...all('.panel-form')].filter((form) => changedOf(form).length > 0);
    if (open.length === 0 && !isUnderway()) return;
    event.preventDefault();
    isPlacing = true;
    if (!isUnderway()) open.forEach((form) => form.dispatchEvent(new Event('change')));
});
document.addEventListener('keydown', (event) => {
    if (event.key === 'Enter' && event.target.matches('#sheet input, .panel-form input')) {
        event.preventDefault();
        event.target.dispatchEvent(new Event('change', { bubbles: true }));
    }
});

// ---- which lines are shown stands in the address ----
const view = one('[data-view]');
let typing;
const look = () => {
    one('#rows').replaceChildren();
    const shown = query();
    shown.delete('count');
    history.replaceState(null, '', `${address}${shown.size > 0 ? `?${shown}` : ''}`);
    ask('GET', `${address}?renew=1`);
};
view.addEventListener('change', (event) => {
    if (event.target.id !== 'find') look();
});
view.addEventListener('input', (event) => {
    if (event.target.id !== 'find') return;
    clearTimeout(typing);
    typing = setTimeout(look, 250);
});

// What somebody chose while the page was still loading, or what the browser filled in again, counts as well.
const catchUp = () => {
    if (changedOf(sheet).length > 0) sheet.dispatchEvent(new Event('change'));
};
if (document.readyState === 'complete') catchUp();
else document.addEventListener('DOMContentLoaded', catchUp);
