// A row of results that is renewed: what is open stays open, and a button stays under the pointer that is about to press it.
import { one } from './dom.js';

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
