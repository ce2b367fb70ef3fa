// What stays as it is while an answer is laid over the page: what somebody has typed or chosen, opened, or drawn.
import { isChanged } from './fields.js';

const isField = (node) => node instanceof Element && node.matches('input, select, textarea');

const isKept = (node) =>
    (isField(node) && node.type !== 'hidden' && isChanged(node)) || (node instanceof Element && node.matches('.line-open, [data-map]'));

const { callbacks } = Idiomorph.defaults;

callbacks.beforeNodeMorphed = (before) => !isKept(before);

callbacks.beforeAttributeUpdated = (name, node) =>
    !((name === 'open' && node.matches('details')) || (name === 'aria-expanded' && node.matches('[data-open]')));

// A channel map follows its field, whoever changed it.
callbacks.afterNodeMorphed = (field) => {
    if (!isField(field) || field.name !== 'layout' || field.dataset.shown === field.value) return;
    field.dataset.shown = field.value;
    field.dispatchEvent(new Event('change', { bubbles: true }));
};
