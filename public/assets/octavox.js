// What the page does by itself: choosing rows, bringing files in, keeping the chosen sources at hand.
'use strict';

(() => {
    const one = (selector, root = document) => root.querySelector(selector);
    const all = (selector, root = document) => [...root.querySelectorAll(selector)];

    // ---- choosing rows of a folder ----
    const boxesOf = (root) => all('tbody input[type=checkbox]', root).filter((box) => !box.disabled);
    const showEvery = (root) => {
        const boxes = boxesOf(root);
        const count = boxes.filter((box) => box.checked).length;
        const every = one('[data-pick-all]', root);
        if (every) {
            every.checked = count > 0 && count === boxes.length;
            every.indeterminate = count > 0 && count < boxes.length;
        }

        return count;
    };
    const showChosen = (form) => {
        const count = showEvery(form);
        const foot = one('[data-pick-foot]', form);
        if (!foot) return;
        foot.hidden = count === 0;
        one('[data-pick-count]', foot).textContent = count;
    };
    document.addEventListener('change', (event) => {
        const form = event.target.closest('[data-pick]');
        if (!form || event.target.type !== 'checkbox') return;
        if (event.target.matches('[data-pick-all]'))
            boxesOf(form).forEach((box) => {
                box.checked = event.target.checked && !('made' in box.dataset);
            });
        showChosen(form);
    });
    // All that is chosen goes along in one field, however many they are.
    document.addEventListener('submit', (event) => {
        const form = event.target;
        if (!form.matches('[data-pick-joined]')) return;
        const boxes = boxesOf(form);
        const field = document.createElement('input');
        field.type = 'hidden';
        field.name = form.dataset.pickJoined;
        field.value = JSON.stringify(boxes.filter((box) => box.checked).map((box) => box.value));
        const { name } = boxes[0] || {};
        boxes.forEach((box) => box.removeAttribute('name'));
        form.append(field);
        setTimeout(() => {
            field.remove();
            boxes.forEach((box) => {
                box.name = name;
            });
        });
    });
    window.addEventListener('pageshow', () => all('[data-pick]').forEach(showChosen));

    // ---- ticks among the sources are lines of the draft: the server keeps them from the first one on ----
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
        const boxes = boxesOf(list);
        const [from, to] = [boxes.findIndex((box) => box.value === last), boxes.indexOf(event.target)];
        if (event.shiftKey && from >= 0) ticks(boxes.slice(Math.min(from, to), Math.max(from, to) + 1), event.target.checked);
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

    // ---- a row that is renewed: what is open stays open, and a button stays under the pointer that is about to press it ----
    document.addEventListener('htmx:oobBeforeSwap', (event) => {
        const { target, fragment } = event.detail;
        const next = fragment && (fragment.matches?.('.result') ? fragment : one('.result', fragment));
        if (!next || !target.matches('.result')) return;
        if (one('.receipt', target)?.open) one('.receipt', next)?.setAttribute('open', '');
        if (one('input[type=checkbox]', target)?.checked) one('input[type=checkbox]', next)?.setAttribute('checked', '');
        const acts = one('.result-acts', target);
        const nextActs = one('.result-acts', next);
        if (target.dataset.state === next.dataset.state && acts.textContent.trim() === nextActs.textContent.trim()) {
            one('.result-state', target).replaceChildren(...one('.result-state', next).childNodes);
            event.detail.shouldSwap = false;
        } else if (acts.contains(document.activeElement)) {
            setTimeout(() => one('.result-acts .act', document.getElementById(target.id))?.focus());
        }
    });

    // ---- words to put into a name ----
    document.addEventListener('click', (event) => {
        const chip = event.target.closest?.('[data-word]');
        if (!chip) return;
        const field = document.getElementById(chip.closest('[data-words-for]').dataset.wordsFor);
        const at = field.selectionStart ?? field.value.length;
        if ('wordAlone' in chip.dataset) field.value = chip.dataset.word;
        else if ('wordFirst' in chip.dataset) field.value = chip.dataset.word + field.value.slice(field.value.lastIndexOf('/') + 1);
        else field.value = `${field.value.slice(0, at)}${chip.dataset.word}${field.value.slice(field.selectionEnd ?? at)}`;
        field.focus();
        field.dispatchEvent(new Event('change', { bubbles: true }));
    });

    // ---- results: marks, and one thing with many ----
    const many = one('[data-many]');
    const marked = () => all('input[name="results[]"]').filter((box) => box.checked);
    const showMarked = () => {
        const foot = one('#marked-foot');
        if (!foot) return;
        foot.hidden = marked().length === 0;
        one('[data-marked-count]', foot).textContent = marked().length;
    };
    let lastMarked = null;
    document.addEventListener('click', (event) => {
        const box = event.target;
        if (!box.matches?.('input[name="results[]"]')) return;
        const boxes = all('input[name="results[]"]');
        const [from, to] = [boxes.findIndex((other) => other.value === lastMarked), boxes.indexOf(box)];
        if (event.shiftKey && from >= 0)
            boxes.slice(Math.min(from, to), Math.max(from, to) + 1).forEach((other) => {
                other.checked = box.checked;
            });
        lastMarked = box.value;
        showMarked();
    });
    // A button beside an order is for all of that order, whatever is marked.
    if (many) {
        many.addEventListener('submit', (event) => {
            const { order } = event.submitter?.dataset ?? {};
            one('input[name=order]', many)?.remove();
            if (!order) return;
            const field = document.createElement('input');
            [field.type, field.name, field.value] = ['hidden', 'order', order];
            many.append(field);
        });
    }
    document.addEventListener('click', async (event) => {
        const button = event.target.closest?.('[data-copy]');
        if (!button) return;
        await navigator.clipboard.writeText(button.dataset.copy);
        button.textContent = 'copied';
    });
    window.addEventListener('pageshow', showMarked);

    // ---- a cover: dropped on its place it is given at once ----
    document.addEventListener(
        'dragover',
        (event) => {
            if (!event.target.closest?.('[data-cover]')) return;
            event.preventDefault();
            event.stopPropagation();
        },
        true,
    );
    document.addEventListener(
        'drop',
        (event) => {
            const form = event.target.closest?.('[data-cover]');
            if (!form || event.dataTransfer.files.length === 0) return;
            event.preventDefault();
            event.stopPropagation();
            one('input[type=file]', form).files = event.dataTransfer.files;
            form.requestSubmit(one('button:not([name])', form));
        },
        true,
    );

    // ---- bringing files in ----
    const list = one('[data-uploads]');
    const clock = (seconds) =>
        seconds < 60 ? `${Math.ceil(seconds)} s` : `${Math.floor(seconds / 60)}:${String(Math.round(seconds % 60)).padStart(2, '0')} min`;
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
        item.innerHTML =
            '<span class="upload-name"></span><progress max="1" value="0"></progress><span class="num-line">waiting</span>' +
            '<button type="button" class="act act-quiet">Cancel</button>';
        one('.upload-name', item).textContent = name;
        one('progress', item).setAttribute('aria-label', `Bringing in ${name}`);
        one('button', item).setAttribute('aria-label', `Cancel ${name}`);
        list.append(item);

        return item;
    };

    const upload = (file, path, item, drop) => {
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
            metadata: { filename: file.name, path, drop },
            headers: { 'X-CSRF-TOKEN': one('meta[name=csrf-token]').content },
            onProgress: (sent, total) => {
                first ??= sent;
                const speed = (sent - first) / Math.max(0.2, (performance.now() - began) / 1000);
                one('progress', item).value = total === 0 ? 1 : sent / total;
                note.textContent =
                    speed > 0
                        ? `${megabytes(sent)} of ${megabytes(total)}, ${clock((total - sent) / speed)} left`
                        : `${megabytes(sent)} of ${megabytes(total)}`;
            },
            onSuccess: () => {
                item.remove();
                refresh();
                finished();
            },
            onError: (error) => {
                const status = error.originalResponse ? error.originalResponse.getStatus() : 0;
                note.textContent =
                    status === 413
                        ? 'It is too large for this machine; nothing was kept of it.'
                        : status === 507
                          ? 'The drive of Octavox has no room for it. What arrived is kept: free some room and try again.'
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

    const bring = (file, path, drop = '') => {
        const item = row(path || file.name);
        const entry = [file, path, item, drop];
        waiting.push(entry);
        one('button', item).onclick = () => {
            waiting.splice(waiting.indexOf(entry), 1);
            item.remove();
        };
        begin();
    };

    const walk = (entry, folder, drop) => {
        if (entry.isFile) {
            entry.file((file) => {
                if (!file.name.startsWith('.')) bring(file, folder + file.name, drop);
            });
        } else if (entry.isDirectory) {
            const reader = entry.createReader();
            const more = () =>
                reader.readEntries((entries) => {
                    entries.forEach((child) => walk(child, `${folder}${entry.name}/`, drop));
                    if (entries.length > 0) more();
                });
            more();
        }
    };

    if (list) {
        // What is brought in together from a folder may belong together.
        const together = () => `${Date.now()}-${Math.random()}`;
        one('#files').addEventListener('change', (event) => {
            const drop = together();
            [...event.target.files].forEach((file) => bring(file, '', drop));
            event.target.value = '';
        });
        let depth = 0;
        document.addEventListener('dragenter', (event) => {
            event.preventDefault();
            depth += 1;
            document.body.classList.add('is-over');
        });
        document.addEventListener('dragleave', () => {
            depth -= 1;
            if (depth <= 0) document.body.classList.remove('is-over');
        });
        document.addEventListener('dragover', (event) => event.preventDefault());
        document.addEventListener('drop', (event) => {
            event.preventDefault();
            depth = 0;
            document.body.classList.remove('is-over');
            const drop = together();
            const entries = [...event.dataTransfer.items]
                .map((item) => (item.webkitGetAsEntry ? item.webkitGetAsEntry() : null))
                .filter(Boolean);
            if (entries.length > 0) entries.forEach((entry) => walk(entry, '', drop));
            else [...event.dataTransfer.files].forEach((file) => bring(file, '', drop));
        });
        window.addEventListener('beforeunload', (event) => {
            if (running > 0) event.preventDefault();
        });
    }

    // ---- what cannot be undone is asked once more; a field that is only copied is marked whole ----
    document.addEventListener('click', (event) => {
        const button = event.target.closest?.('[data-asks]');
        if (button && !window.confirm(button.dataset.asks)) event.preventDefault();
        if (event.target.matches?.('[data-select-all]')) event.target.select();
    });

    // ---- what a browser cannot play ----
    all('[data-player]').forEach((player) =>
        player.addEventListener('error', () => {
            one('[data-player-fault]').hidden = false;
        }),
    );
})();
