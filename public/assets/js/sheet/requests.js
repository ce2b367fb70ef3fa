// What goes to the server, one thing after the other, and what is said where that fails.
import { all, one } from '../dom.js';
import { changedOf, sentValue, settle } from './fields.js';

const REACHED = 60;

let underway = 0;
let isDone = () => {};

export const isUnderway = () => underway > 0;

/** What is to happen once nothing is on its way any more. */
export const whenDone = (then) => {
    isDone = then;
};

const ended = () => {
    underway -= 1;
    if (underway === 0) isDone();
};

/** Which lines are shown, and as many as are there. */
export const query = () => {
    const shown = Object.fromEntries([...new FormData(one('[data-view]'))].filter(([, value]) => value !== '' && value !== 'all'));

    return new URLSearchParams({ ...shown, count: String(Math.max(REACHED, all('#rows .line').length)) });
};

const withQuery = (url) => `${url}${url.includes('?') ? '&' : '?'}${query()}`;

const tell = (text) => {
    let place = one('.said');
    if (!place) {
        place = document.createElement('p');
        place.className = 'said';
        place.setAttribute('role', 'status');
        one('#main').prepend(place);
    }
    place.textContent = text;
};

const refusal = (status, text) => {
    if (status === 422) return text;

    return status === 409
        ? 'This order was placed meanwhile, so nothing on it can be changed any more; its results are on the page Results.'
        : 'That could not be done; nothing was changed. Load the page again and try once more.';
};

let queue = Promise.resolve();

/** Asks for something that is no form; what the answer holds is laid over the page. */
export const ask = (method, url, values = {}) => {
    underway += 1;
    queue = queue
        .then(() => htmx.ajax(method, withQuery(url), { source: '#rows', swap: 'none', values }))
        .catch(() => {})
        .finally(ended);

    return queue;
};

const isOurs = (element) => element.matches?.('[data-renews], #rows');

// A form sends the fields that were changed; a button within says what it says and nothing of the fields around it.
document.addEventListener('htmx:configRequest', (event) => {
    const form = event.target;
    if (!form.matches?.('[data-renews]')) return;
    const { formData } = event.detail;
    event.detail.path = withQuery(event.detail.path);
    const own = form.tagName === 'FORM' ? [] : Object.keys(JSON.parse(form.getAttribute('hx-vals') ?? '{}'));
    [...formData.keys()].forEach((name) => {
        if (!own.includes(name) && !one(`[data-always][name="${name}"]`, form)) formData.delete(name);
    });
    if (form.tagName !== 'FORM') return;
    const changed = changedOf(form);
    form.sent = changed.map((field) => [field, sentValue(field)]);
    form.sent.forEach(([field, value]) => formData.set(field.name, value));
    if (changed.length === 0) event.preventDefault();
});
// Fields that stand elsewhere and belong to the form all the same, as those of the foot do.
document.addEventListener('change', (event) => {
    const { form } = event.target;
    if (form?.matches?.('[data-renews]') && !form.contains(event.target)) form.dispatchEvent(new Event('change'));
});
document.addEventListener('htmx:beforeRequest', (event) => {
    if (event.target.matches?.('[data-renews]:not([data-poll])')) underway += 1;
});
document.addEventListener('htmx:beforeOnLoad', (event) => {
    if (!event.target.matches?.('[data-renews]') || event.detail.xhr.status >= 400) return;
    (event.target.sent ?? []).forEach(([field, value]) => settle(field, value));
    event.target.sent = [];
});
// Where something that was meant later is on its way, its answer holds this one's as well.
document.addEventListener('htmx:beforeSwap', (event) => {
    const from = event.detail.requestConfig.elt;
    if (isOurs(from) && underway > (from.matches('[data-poll]') ? 0 : 1)) event.detail.shouldSwap = false;
});
document.addEventListener('htmx:afterRequest', (event) => {
    const from = event.detail.elt;
    if (!isOurs(from)) return;
    const { successful, xhr } = event.detail;
    if (!successful)
        tell(
            xhr.status === 0
                ? 'Octavox cannot be reached at the moment; nothing was changed. Try again when it runs.'
                : refusal(xhr.status, xhr.responseText),
        );
    if (from.matches('[data-renews]:not([data-poll])')) ended();
});
