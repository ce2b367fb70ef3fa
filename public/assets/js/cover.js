// A cover: dropped on its place it is given at once.
import { one } from './dom.js';

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
