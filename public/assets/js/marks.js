// Results: marks, and one thing with many.
import { all, one, stretch } from './dom.js';

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
    stretch(all('input[name="results[]"]'), lastMarked, box, event.shiftKey).forEach((other) => {
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
window.addEventListener('pageshow', showMarked);
