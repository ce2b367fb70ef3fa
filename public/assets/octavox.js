// What the page does by itself: choosing rows, bringing files in, keeping the chosen sources at hand.
'use strict';

(() => {
    const one = (selector, root = document) => root.querySelector(selector);
    const all = (selector, root = document) => [...root.querySelectorAll(selector)];

    // ---- choosing rows; what is chosen outlives a refresh of the list, another page of it, a search and the way back ----
    const STORE = 'octavox-chosen';
    const boxesOf = (form) => all('tbody input[type=checkbox]', form).filter((box) => !box.disabled);
    const chosen = new Set(JSON.parse(sessionStorage.getItem(STORE) || '[]'));
    const here = new Set();
    const chosenIn = (form) => (form.matches('[data-pick-kept]') ? chosen : here);

    const showChosen = (form) => {
        const set = chosenIn(form);
        const boxes = boxesOf(form);
        boxes.forEach((box) => { box.checked = set.has(box.value); });
        const count = boxes.filter((box) => box.checked).length;
        const foot = one('[data-pick-foot]', form);
        const every = one('[data-pick-all]', form);
        if (foot) {
            foot.hidden = set.size === 0;
            one('[data-pick-count]', foot).textContent = set.size;
            const elsewhere = one('[data-pick-elsewhere]', foot);
            if (elsewhere) elsewhere.textContent = set.size > count ? `${set.size - count} of them not on this page` : '';
            const add = one('[data-add-to-sheet]', foot);
            if (add) add.hidden = !sessionStorage.getItem('octavox-sheet');
        }
        if (every) {
            every.checked = count > 0 && count === boxes.length;
            every.indeterminate = count > 0 && count < boxes.length;
        }
        if (set === chosen) sessionStorage.setItem(STORE, JSON.stringify([...chosen]));
    };
    const showAllChosen = () => all('[data-pick]').forEach(showChosen);

    document.addEventListener('change', (event) => {
        const form = event.target.closest('[data-pick]');
        if (!form || event.target.type !== 'checkbox') return;
        const set = chosenIn(form);
        const changed = event.target.matches('[data-pick-all]') ? boxesOf(form) : [event.target];
        changed.forEach((box) => (event.target.checked ? set.add(box.value) : set.delete(box.value)));
        showChosen(form);
    });

    // All that is chosen goes along in one field, however many they are.
    document.addEventListener('submit', (event) => {
        const form = event.target;
        if (form.matches('[data-pick-joined]')) {
            const set = chosenIn(form);
            const field = document.createElement('input');
            field.type = 'hidden';
            field.name = form.dataset.pickJoined;
            field.value = form.matches('[data-pick-kept]') ? [...set].join(',') : JSON.stringify([...set]);
            const boxes = boxesOf(form);
            const { name } = boxes[0] || {};
            boxes.forEach((box) => box.removeAttribute('name'));
            form.append(field);
            setTimeout(() => {
                field.remove();
                boxes.forEach((box) => { box.name = name; });
            });
        } else if (form.id === 'sheet') {
            chosen.clear();
            sessionStorage.setItem(STORE, '[]');
            sessionStorage.removeItem('octavox-sheet');
        } else if (form.matches('[data-away]')) {
            chosen.delete(form.dataset.away);
            sessionStorage.setItem(STORE, JSON.stringify([...chosen]));
        }
    });

    document.addEventListener('click', (event) => {
        const form = event.target.closest('[data-pick]');
        if (!form) return;
        if (event.target.matches('[data-pick-none]')) {
            chosenIn(form).clear();
            showChosen(form);
        } else if (event.target.matches('[data-add-to-sheet]')) {
            const sheet = new URLSearchParams(sessionStorage.getItem('octavox-sheet'));
            const sources = new Set((sheet.get('sources') || '').split(',').filter(Boolean));
            chosen.forEach((id) => sources.add(id));
            sheet.set('sources', [...sources].join(','));
            location.href = `/order?${sheet}`;
        }
    });

    document.addEventListener('htmx:afterSwap', showAllChosen);
    document.addEventListener('htmx:historyRestore', showAllChosen);
    window.addEventListener('pageshow', showAllChosen);
    showAllChosen();

    // ---- a row that is renewed: what is open stays open, and a button stays under the pointer that is about to press it ----
    document.addEventListener('htmx:oobBeforeSwap', (event) => {
        const { target, fragment } = event.detail;
        const next = fragment && (fragment.matches?.('.result') ? fragment : one('.result', fragment));
        if (!next || !target.matches('.result')) return;
        if (one('.receipt', target)?.open) one('.receipt', next)?.setAttribute('open', '');
        const acts = one('.result-acts', target);
        const nextActs = one('.result-acts', next);
        if (target.dataset.state === next.dataset.state && acts.textContent.trim() === nextActs.textContent.trim()) {
            one('.result-state', target).replaceChildren(...one('.result-state', next).childNodes);
            event.detail.shouldSwap = false;
        } else if (acts.contains(document.activeElement)) {
            setTimeout(() => one('.result-acts .act', document.getElementById(target.id))?.focus());
        }
    });

    // ---- what somebody chose while the page was still loading, or what the browser filled in again, counts as well ----
    document.addEventListener('DOMContentLoaded', () => {
        const sheet = one('#sheet');
        const isChanged = (field) => {
            if (field.type === 'hidden') return false;
            if (field.type === 'checkbox') return field.checked !== field.defaultChecked;
            if (field.tagName === 'SELECT') return [...field.options].some((option) => option.selected && !option.defaultSelected) && [...field.options].some((option) => option.defaultSelected);

            return field.defaultValue !== undefined && field.value !== field.defaultValue;
        };
        if (sheet && [...sheet.elements].some(isChanged)) sheet.dispatchEvent(new Event('change'));
    });

    // ---- on the sheet the Enter key settles a field, it does not make anything ----
    document.addEventListener('keydown', (event) => {
        if (event.key === 'Enter' && event.target.matches('#sheet input')) {
            event.preventDefault();
            event.target.dispatchEvent(new Event('change', { bubbles: true }));
        }
    });

    // ---- bringing files in ----
    const list = one('[data-uploads]');
    const clock = (seconds) => (seconds < 60 ? `${Math.ceil(seconds)} s` : `${Math.floor(seconds / 60)}:${String(Math.round(seconds % 60)).padStart(2, '0')} min`);
    const megabytes = (bytes) => `${(bytes / 1e6).toFixed(bytes < 1e7 ? 1 : 0)} MB`;
    const waiting = [];
    let running = 0;

    const refresh = () => {
        const shown = one('#list');
        if (shown) htmx.ajax('GET', location.href, { target: '#list', select: '#list', swap: 'outerHTML' });
    };

    const begin = () => {
        while (running < 3 && waiting.length > 0) {
            running += 1;
            upload(...waiting.shift());
        }
    };

    const row = (name) => {
        const item = document.createElement('li');
        item.innerHTML = '<span class="upload-name"></span><progress max="1" value="0"></progress><span class="num-line">waiting</span><button type="button" class="act act-quiet">Cancel</button>';
        one('.upload-name', item).textContent = name;
        one('progress', item).setAttribute('aria-label', `Bringing in ${name}`);
        one('button', item).setAttribute('aria-label', `Cancel ${name}`);
        list.append(item);

        return item;
    };

    const upload = (file, path, item) => {
        const note = one('.num-line', item);
        const button = one('button', item);
        const began = performance.now();
        let first = null;
        const finished = () => {
            running -= 1;
            begin();
        };
        const task = new tus.Upload(file, {
            endpoint: list.dataset.url,
            chunkSize: 8 * 1024 * 1024,
            retryDelays: [0, 500, 1500, 4000, 8000, 15000],
            removeFingerprintOnSuccess: true,
            metadata: { filename: file.name, path },
            headers: { 'X-CSRF-TOKEN': one('meta[name=csrf-token]').content },
            onProgress: (sent, total) => {
                first ??= sent;
                const speed = (sent - first) / Math.max(0.2, (performance.now() - began) / 1000);
                one('progress', item).value = total === 0 ? 1 : sent / total;
                note.textContent = speed > 0 ? `${megabytes(sent)} of ${megabytes(total)}, ${clock((total - sent) / speed)} left` : `${megabytes(sent)} of ${megabytes(total)}`;
            },
            onSuccess: () => {
                item.remove();
                refresh();
                finished();
            },
            onError: (error) => {
                const status = error.originalResponse ? error.originalResponse.getStatus() : 0;
                note.textContent = status === 413
                    ? 'It is too large for this machine; nothing was kept of it.'
                    : 'The connection is gone. What arrived is kept: choose the same file again and it goes on where it stopped.';
                note.className = 'fault';
                button.textContent = 'Try again';
                button.onclick = () => {
                    note.className = 'num-line';
                    button.textContent = 'Cancel';
                    running += 1;
                    button.onclick = cancel;
                    task.start();
                };
                finished();
            },
        });
        const cancel = () => {
            task.abort(true).catch(() => {});
            item.remove();
            finished();
        };
        button.onclick = cancel;
        task.findPreviousUploads().then((before) => {
            if (before.length > 0) task.resumeFromPreviousUpload(before[0]);
            task.start();
        });
    };

    const bring = (file, path) => {
        const item = row(path || file.name);
        const entry = [file, path, item];
        waiting.push(entry);
        one('button', item).onclick = () => {
            waiting.splice(waiting.indexOf(entry), 1);
            item.remove();
        };
        begin();
    };

    const walk = (entry, folder) => {
        if (entry.isFile) {
            entry.file((file) => { if (!file.name.startsWith('.')) bring(file, folder + file.name); });
        } else if (entry.isDirectory) {
            const reader = entry.createReader();
            const more = () => reader.readEntries((entries) => {
                entries.forEach((child) => walk(child, `${folder}${entry.name}/`));
                if (entries.length > 0) more();
            });
            more();
        }
    };

    if (list) {
        one('#files').addEventListener('change', (event) => {
            [...event.target.files].forEach((file) => bring(file, ''));
            event.target.value = '';
        });
        let depth = 0;
        document.addEventListener('dragenter', (event) => { event.preventDefault(); depth += 1; document.body.classList.add('is-over'); });
        document.addEventListener('dragleave', () => { depth -= 1; if (depth <= 0) document.body.classList.remove('is-over'); });
        document.addEventListener('dragover', (event) => event.preventDefault());
        document.addEventListener('drop', (event) => {
            event.preventDefault();
            depth = 0;
            document.body.classList.remove('is-over');
            const entries = [...event.dataTransfer.items].map((item) => (item.webkitGetAsEntry ? item.webkitGetAsEntry() : null)).filter(Boolean);
            if (entries.length > 0) entries.forEach((entry) => walk(entry, ''));
            else [...event.dataTransfer.files].forEach((file) => bring(file, ''));
        });
        window.addEventListener('beforeunload', (event) => { if (running > 0) event.preventDefault(); });
    }

    // ---- what a browser cannot play ----
    all('[data-player]').forEach((player) => player.addEventListener('error', () => { one('[data-player-fault]').hidden = false; }));

    // ---- the last order sheet stays at hand ----
    const rememberSheet = () => { if (location.pathname === '/order' && new URLSearchParams(location.search).get('sources')) sessionStorage.setItem('octavox-sheet', location.search); };
    rememberSheet();
    document.addEventListener('htmx:pushedIntoHistory', rememberSheet);
    window.addEventListener('pageshow', rememberSheet);
    const sheet = sessionStorage.getItem('octavox-sheet');
    if (sheet) all('[data-order-link]').forEach((link) => { link.href = `/order${sheet}`; });
})();
