// The grid of tags: what is typed is kept as it is typed, one request after the other, and before the page is left.
import { token } from './dom.js';

const begin = (form) => {
    const says = document.querySelector('[data-kept]');
    const undo = document.querySelector('[data-undo]');
    const cells = () => [...form.querySelectorAll('.tag-grid input')];
    const isTyped = (field) => field.value !== field.defaultValue;
    let queue = Promise.resolve();
    let waiting;
    const send = () => {
        clearTimeout(waiting);
        const typed = cells()
            .filter(isTyped)
            .map((field) => [field, field.defaultValue, field.value]);
        if (typed.length === 0) return queue;
        const body = new FormData();
        body.append('_method', 'PATCH');
        typed.forEach(([field, , value]) => {
            body.append(field.name, value);
            field.defaultValue = value;
        });
        // It goes on its way even where the page is being left.
        const answer = fetch(form.dataset.types, {
            method: 'POST',
            body,
            keepalive: true,
            headers: { 'X-CSRF-TOKEN': token() },
        });
        queue = Promise.all([
            queue,
            answer.then(
                (got) => got.ok,
                () => false,
            ),
        ]).then(([, isKept]) => {
            if (isKept) {
                says.textContent = 'Saved.';
                undo.disabled = false;

                return;
            }
            typed.forEach(([field, before]) => {
                field.defaultValue = before;
            });
            says.textContent = 'What you typed could not be saved; it is tried again with the next field.';
        });

        return queue;
    };
    form.addEventListener('change', (event) => {
        if (event.target.closest('.tag-grid')) send();
    });
    form.addEventListener('input', (event) => {
        if (!event.target.closest('.tag-grid')) return;
        says.textContent = 'Typing …';
        clearTimeout(waiting);
        waiting = setTimeout(send, 1500);
    });
    window.addEventListener('pagehide', send);
    document.addEventListener('visibilitychange', () => {
        if (document.visibilityState === 'hidden') send();
    });
    // Whatever is pressed comes after what was typed.
    let isReady = false;
    form.addEventListener('submit', (event) => {
        if (isReady) return;
        event.preventDefault();
        const { submitter } = event;
        // A form that is being submitted cannot be submitted again before that has ended.
        send().then(() =>
            setTimeout(() => {
                isReady = true;
                cells().forEach((field) => {
                    field.disabled = !isTyped(field);
                });
                form.requestSubmit(submitter);
            }),
        );
    });
    window.addEventListener('pageshow', () => {
        isReady = false;
        cells().forEach((field) => {
            field.disabled = false;
        });
    });
    document.addEventListener('keydown', (event) => {
        const cell = event.target.closest?.('.tag-grid td');
        const step = { Enter: 1, ArrowDown: 1, ArrowUp: -1 }[event.key];
        if (!cell || !step) return;
        event.preventDefault();
        const row = step > 0 ? cell.parentElement.nextElementSibling : cell.parentElement.previousElementSibling;
        (row?.children[cell.cellIndex] ?? cell).querySelector('input').focus();
    });
};

const form = document.querySelector('[data-tags]');
if (form) begin(form);
