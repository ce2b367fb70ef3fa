// Bringing files in: several at once, by hand or dropped, and on from where one stopped.
import { one, token } from './dom.js';

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
        headers: { 'X-CSRF-TOKEN': token() },
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
