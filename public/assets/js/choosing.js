// Choosing rows of a table: all at once, how many, and all in one field however many they are.
import { all, one } from './dom.js';

export const boxesOf = (root) => all('tbody input[type=checkbox]', root).filter((box) => !box.disabled);
export const showEvery = (root) => {
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
