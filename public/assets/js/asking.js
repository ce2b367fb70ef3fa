// What cannot be undone is asked once more; a field that is only copied is marked whole; what a browser cannot play is said.
import { all, one } from './dom.js';

document.addEventListener('click', (event) => {
    const button = event.target.closest?.('[data-asks]');
    if (button && !window.confirm(button.dataset.asks)) event.preventDefault();
    if (event.target.matches?.('[data-select-all]')) event.target.select();
});

document.addEventListener('click', async (event) => {
    const button = event.target.closest?.('[data-copy]');
    if (!button) return;
    await navigator.clipboard.writeText(button.dataset.copy);
    button.textContent = 'copied';
});

all('[data-player]').forEach((player) =>
    player.addEventListener('error', () => {
        one('[data-player-fault]').hidden = false;
    }),
);
