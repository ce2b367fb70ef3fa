// The order sheet: fields are sent as they change, and what the answer says takes the place of what it said before.
'use strict';

(() => {
    const one = (selector, root = document) => root.querySelector(selector);
    const all = (selector, root = document) => [...root.querySelectorAll(selector)];
    const sheet = one('#sheet');
    if (!sheet) return;
    const address = sheet.dataset.sheet;
    const rows = one('#rows');
    const view = one('[data-view]');
    const token = () => one('meta[name=csrf-token]').content;

    // ---- which fields somebody has changed since the server said what they hold ----
    const usual = (field) =>
        field.tagName === 'SELECT'
            ? ([...field.options].find((option) => option.defaultSelected) ?? field.options[0])?.value
            : field.defaultValue;
    const isChanged = (field) => (field.type === 'checkbox' ? field.checked !== field.defaultChecked : field.value !== usual(field));
    const fieldsOf = (form) =>
        [...form.elements].filter((field) => field.name && !['hidden', 'submit', 'button', 'radio', 'fieldset'].includes(field.type));
    const changedOf = (form) => fieldsOf(form).filter(isChanged);
    const settle = (field, value) => {
        if (field.type === 'checkbox') field.defaultChecked = value === '1';
        else if (field.tagName === 'SELECT')
            [...field.options].forEach((option) => {
                option.defaultSelected = option.value === value;
            });
        else field.defaultValue = value;
    };
    const sentValue = (field) => (field.type === 'checkbox' ? (field.checked ? '1' : '0') : field.value.replaceAll('–', '-'));

    // ---- what is renewed ----
    const said = new Map(all('[data-renew]').map((part) => [part.id, part.outerHTML]));
    const swap = (current, next) => {
        if (said.get(next.id) === next.outerHTML) return;
        said.set(next.id, next.outerHTML);
        const held = current.contains(document.activeElement) ? document.activeElement : null;
        const typed = held?.matches('input[type=text]') ? [held.value, held.selectionStart] : null;
        // What was chosen since, and is not sent yet, stays chosen.
        const unsent = all('select, input', current).filter(
            (field) => field.name && !['hidden', 'radio'].includes(field.type) && isChanged(field),
        );
        all('details[open][id]', current).forEach((part) => one(`#${CSS.escape(part.id)}`, next)?.setAttribute('open', ''));
        current.replaceWith(next);
        unsent.forEach((field) => {
            const own = one(`[name="${CSS.escape(field.name)}"]`, next);
            if (!own || own.type !== field.type) return;
            if (own.type === 'checkbox') own.checked = field.checked;
            else if (own.tagName !== 'SELECT' || [...own.options].some((option) => option.value === field.value)) own.value = field.value;
        });
        htmx.process(next);
        const again = held?.id ? document.getElementById(held.id) : null;
        if (again && document.activeElement !== again) {
            // What is being typed stays as it is.
            if (typed && again.value !== typed[0]) [again.value] = typed;
            again.focus({ preventScroll: true });
            if (typed) again.setSelectionRange(typed[1], typed[1]);
        } else if (held?.matches('button')) {
            (one('button', next) ?? one('#make'))?.focus({ preventScroll: true });
        }
    };
    const lines = () => all('.line', rows);
    const renewRows = (next) => {
        const wanted = all('.line', next);
        const isSame = wanted.length === lines().length && wanted.every((line, index) => line.id === lines()[index].id);
        wanted.forEach((line) => {
            const own = document.getElementById(line.id);
            if (!own) {
                said.set(`row-${line.dataset.line}`, one('.row-closed', line).outerHTML);

                return;
            }
            own.className = line.className;
            swap(one('.row-closed', own), one('.row-closed', line));
            const open = one('[data-open]', own);
            open?.setAttribute('aria-expanded', String(!one('.line-open', own).hidden));
        });
        if (!isSame) {
            const parts = wanted.map((line) => document.getElementById(line.id) ?? line);
            rows.replaceChildren(...parts, ...all(':scope > .more', next));
        } else {
            all(':scope > .more', rows).forEach((part) => part.remove());
            rows.append(...all(':scope > .more', next));
        }
        htmx.process(rows);
        watchMore();
    };
    let stale = 0;
    const renew = (text) => {
        const answer = new DOMParser().parseFromString(text, 'text/html');
        all('[data-renew]', answer)
            .filter((part) => !part.closest('#rows'))
            .forEach((part) => {
                const current = document.getElementById(part.id);
                if (current) swap(current, part);
            });
        const next = one('#rows', answer);
        if (next) renewRows(next);
        const name = one('[data-name]', answer)?.dataset.name;
        const field = one('#name');
        if (name !== undefined && document.activeElement !== field && !isChanged(field)) {
            field.value = name;
            field.defaultValue = name;
        }
        stale += 1;
        all('.line')
            .filter((line) => !one('.line-open', line).hidden && one('[data-panel]', line))
            .forEach((line) => refreshWay(line, stale));
    };
    const query = () => {
        const shown = Object.fromEntries([...new FormData(view)].filter(([, value]) => value !== '' && value !== 'all'));

        return new URLSearchParams({ ...shown, count: String(Math.max(60, lines().length)) });
    };
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
    let underway = 0;
    let isPlacing = false;
    const rest = () => {
        if (underway > 0 || !isPlacing) return;
        isPlacing = false;
        one('[data-place]').requestSubmit();
    };
    // One request after the other, in the order in which they were meant; only the answer to the last is shown.
    let queue = Promise.resolve();
    let asked = 0;
    const ask = (method, url, values = {}) => {
        underway += 1;
        asked += 1;
        const own = asked;
        queue = queue.then(async () => {
            try {
                const body = new FormData();
                Object.entries(values).forEach(([name, value]) => body.append(name, value));
                if (method !== 'GET' && method !== 'POST') body.append('_method', method);
                const got = await fetch(`${url}${url.includes('?') ? '&' : '?'}${query()}`, {
                    method: method === 'GET' ? 'GET' : 'POST',
                    body: method === 'GET' ? undefined : body,
                    headers: { 'X-CSRF-TOKEN': token() },
                });
                const text = await got.text();
                if (!got.ok) tell(refusal(got.status, text));
                else if (own === asked) renew(text);
            } catch {
                tell('Octavox cannot be reached at the moment; nothing was changed. Try again when it runs.');
            } finally {
                underway -= 1;
                rest();
            }
        });

        return queue;
    };

    // ---- forms whose fields are sent as they change ----
    document.addEventListener('htmx:configRequest', (event) => {
        const form = event.target;
        if (!form.matches?.('[data-renews]')) return;
        const separator = event.detail.path.includes('?') ? '&' : '?';
        event.detail.path += `${separator}${query()}`;
        if (form.tagName !== 'FORM') {
            // A button within a form says what it says and nothing of the fields around it.
            const own = Object.keys(JSON.parse(form.getAttribute('hx-vals') ?? '{}'));
            [...event.detail.formData.keys()].forEach((name) => {
                if (!own.includes(name)) event.detail.formData.delete(name);
            });

            return;
        }
        const changed = changedOf(form);
        [...event.detail.formData.keys()].forEach((name) => {
            if (!one(`[data-always][name="${name}"]`, form)) event.detail.formData.delete(name);
        });
        changed.forEach((field) => event.detail.formData.set(field.name, sentValue(field)));
        if (changed.length === 0) event.preventDefault();
        else form.sent = changed.map((field) => [field, sentValue(field)]);
    });
    // Fields that stand elsewhere and belong to the form all the same, as those of the foot do.
    document.addEventListener('change', (event) => {
        const { form } = event.target;
        if (form?.matches?.('[data-renews]') && !form.contains(event.target)) form.dispatchEvent(new Event('change'));
    });
    document.addEventListener('htmx:beforeRequest', (event) => {
        if (event.target.matches?.('[data-renews]:not([data-poll])')) underway += 1;
    });
    document.addEventListener('htmx:afterRequest', (event) => {
        if (!event.target.matches?.('[data-renews]')) return;
        if (!event.target.matches('[data-poll]')) underway -= 1;
        if (event.detail.successful) {
            (event.target.sent ?? []).forEach(([field, value]) => settle(field, value));
            event.target.sent = [];
            // Something that was meant later is on its way: its answer holds this one's as well.
            if (underway === 0 || !event.target.matches('[data-poll]')) renew(event.detail.xhr.responseText);
        } else {
            tell(refusal(event.detail.xhr.status, event.detail.xhr.responseText));
        }
        rest();
    });
    document.addEventListener('submit', (event) => {
        if (event.target.matches('#sheet, .panel-form, [data-view]')) event.preventDefault();
        if (event.target.closest('.save-as')) event.target.closest('.save-as').open = false;
        if (!event.target.matches('[data-place]')) return;
        // What was typed last is still on its way: it counts.
        const open = [sheet, ...all('.panel-form')].filter((form) => changedOf(form).length > 0);
        if (open.length > 0 || underway > 0) {
            event.preventDefault();
            isPlacing = true;
            open.forEach((form) => {
                if (underway === 0) form.dispatchEvent(new Event('change'));
            });
        }
    });
    document.addEventListener('keydown', (event) => {
        if (event.key === 'Enter' && event.target.matches('#sheet input, .panel-form input')) {
            event.preventDefault();
            event.target.dispatchEvent(new Event('change', { bubbles: true }));
        }
    });

    // ---- a line is opened ----
    const refreshWay = async (line, mark) => {
        const got = await fetch(line.dataset.url);
        if (!got.ok || mark !== stale) return;
        const answer = new DOMParser().parseFromString(await got.text(), 'text/html');
        const way = one('.ways', answer);
        const own = document.getElementById(way?.id ?? '');
        if (own && way) swap(own, way);
        // Fields that nobody touches follow what was changed elsewhere.
        const fresh = one('.panel-form', answer);
        const form = one('.panel-form', line);
        if (fresh && form) {
            fieldsOf(form).forEach((field) => {
                const next = fresh.elements.namedItem(field.name);
                if (!next || isChanged(field) || field === document.activeElement) return;
                const value = next.type === 'checkbox' ? (next.defaultChecked ? '1' : '0') : usual(next);
                if (field.tagName === 'SELECT' && ![...field.options].some((option) => option.value === value))
                    field.add(new Option(value, value));
                if (field.type === 'checkbox') field.checked = value === '1';
                else field.value = value;
                settle(field, value);
                // The channel map follows.
                if (field.name === 'layout') field.dispatchEvent(new Event('change', { bubbles: true }));
            });
        }
    };
    const fill = async (line, more = '') => {
        const place = one('.line-open', line);
        const got = await fetch(`${line.dataset.url}${more}`);
        const scope = one('input[name=scope]:checked', place)?.value;
        place.innerHTML = got.ok ? await got.text() : '<p class="fault">This line is not on the order any more.</p>';
        const way = one('.ways', place);
        if (way) said.set(way.id, way.outerHTML);
        // For whom changes are stays as it was chosen.
        if (scope) one(`input[name=scope][value=${scope}]`, place).checked = true;
        htmx.process(place);
        all('[data-map]', place).forEach(window.startMap);
    };
    const open = async (line, isOpen) => {
        const place = one('.line-open', line);
        place.hidden = !isOpen;
        one('[data-open]', line)?.setAttribute('aria-expanded', String(isOpen));
        if (isOpen && place.childElementCount === 0) await fill(line);
        const shown = all('.line')
            .filter((other) => !one('.line-open', other).hidden)
            .map((other) => other.dataset.line);
        sessionStorage.setItem(`octavox-open${address}`, shown.join(','));
    };

    // ---- marks ----
    let last = null;
    const mark = (boxes, on) => ask('POST', `${address}/marks`, { lines: boxes.map((box) => box.value).join(','), on: on ? '1' : '0' });
    document.addEventListener('click', (event) => {
        const { target } = event;
        const line = target.closest?.('.line');
        if (target.closest?.('[data-open]')) open(line, one('.line-open', line).hidden);
        else if (target.matches?.('[data-mark-line]')) {
            const boxes = all('[data-mark-line]', rows);
            const [from, to] = [boxes.findIndex((box) => box.value === last), boxes.indexOf(target)];
            const chosen = event.shiftKey && from >= 0 ? boxes.slice(Math.min(from, to), Math.max(from, to) + 1) : [target];
            chosen.forEach((box) => {
                box.checked = target.checked;
            });
            last = target.value;
            mark(chosen, target.checked);
        } else if (target.matches?.('[data-mark]')) ask('POST', `${address}/marks`, { which: target.dataset.mark });
        else if (target.closest?.('[data-remedy]'))
            ask('PATCH', line.dataset.url, { scope: 'line', ...JSON.parse(target.closest('[data-remedy]').dataset.remedy) });
        else if (target.closest?.('[data-back]'))
            ask('PATCH', line.dataset.url, { scope: 'line', back: target.closest('[data-back]').dataset.back });
        else if (target.closest?.('[data-alike]'))
            ask('PATCH', `${address}/alike`, { fields: target.closest('[data-alike]').dataset.alike });
        else if (target.closest?.('[data-all-fields]')) fill(line, '?all=1');
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
            if (box) {
                if (event.shiftKey) {
                    box.checked = true;
                    one('[data-mark-line]', line).checked = true;
                    mark([one('[data-mark-line]', line), box], true);
                }
                last = box.value;
                box.focus();
                event.preventDefault();
            }
        } else if (event.key.toLowerCase() === 'm') one('[data-mark-line]', line).click();
        else if (event.key.toLowerCase() === 'o') open(line, one('.line-open', line).hidden);
    });

    // ---- lines that are further down ----
    let watched = null;
    const more = async () => {
        const place = one('#more');
        if (!place || place.dataset.asked) return;
        place.dataset.asked = '1';
        const got = await fetch(`${place.dataset.more}&renew=1`);
        if (!got.ok) return;
        const next = one('#rows', new DOMParser().parseFromString(await got.text(), 'text/html'));
        all('.row-closed', next).forEach((row) => said.set(row.id, row.outerHTML));
        const parts = [...next.children].filter((part) => !document.getElementById(part.id) || part.id === 'more');
        place.replaceWith(...parts);
        htmx.process(rows);
        watchMore();
    };
    const watchMore = () => {
        const place = one('#more');
        if (!place || place === watched) return;
        watched = place;
        new IntersectionObserver(
            (seen, self) => {
                if (!seen.some((entry) => entry.isIntersecting)) return;
                self.disconnect();
                more();
            },
            { rootMargin: '800px' },
        ).observe(place);
    };

    // ---- which lines are shown stands in the address ----
    let typing;
    const look = () => {
        const shown = query();
        shown.delete('count');
        history.replaceState(null, '', `${address}${shown.size > 0 ? `?${shown}` : ''}`);
        rows.replaceChildren();
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

    all('[data-map]').forEach(window.startMap);
    watchMore();
    const before = (sessionStorage.getItem(`octavox-open${address}`) ?? '').split(',');
    lines()
        .filter((line) => before.includes(line.dataset.line) || location.hash === `#line-${line.dataset.line}`)
        .forEach((line) => open(line, true));
    // What somebody chose while the page was still loading, or what the browser filled in again, counts as well.
    const catchUp = () => {
        if (changedOf(sheet).length > 0) sheet.dispatchEvent(new Event('change'));
    };
    if (document.readyState === 'complete') catchUp();
    else document.addEventListener('DOMContentLoaded', catchUp);
})();
