// What goes on, on every page: how far it is, in the tab as well, and a sign when an order is done.
import { one } from './dom.js';

const icon = one('link[rel=icon]');
const own = { title: document.title, icon: icon.getAttribute('href') };
const MOVING = 2000;
const RESTING = 20000;
const numbers = (text) => (text ?? '').split(',').filter((part) => part !== '');
const memory = (store) => ({
    get: (name) => {
        try {
            return store().getItem(`octavox-${name}`) ?? '';
        } catch {
            return '';
        }
    },
    set: (name, value) => {
        try {
            store().setItem(`octavox-${name}`, value);
        } catch {
            /* a browser without a memory is told nothing */
        }
    },
});
const tab = memory(() => sessionStorage);
const browser = memory(() => localStorage);
let done = '';

// Two soft tones, the second a fifth above the first.
const ring = () => {
    const context = new AudioContext();
    [
        [0, 587.33],
        [0.22, 880],
    ].forEach(([after, hertz]) => {
        const [tone, gain] = [context.createOscillator(), context.createGain()];
        const at = context.currentTime + after;
        tone.frequency.value = hertz;
        gain.gain.setValueAtTime(0, at);
        gain.gain.linearRampToValueAtTime(0.2, at + 0.02);
        gain.gain.exponentialRampToValueAtTime(0.001, at + 0.9);
        tone.connect(gain).connect(context.destination);
        tone.start(at);
        tone.stop(at + 1);
    });
    setTimeout(() => context.close(), 2000);
};

const tell = (order, says, { rings, notifies }) => {
    done = says;
    const place = one('#told');
    const link = Object.assign(document.createElement('a'), { href: `/results?order=${order}`, textContent: says });
    place.replaceChildren(link);
    place.hidden = false;
    // Every tab shows it; only the first one rings.
    if (browser.get('rang') === order) return;
    browser.set('rang', order);
    if (rings === '1') ring();
    if (notifies === '1' && window.Notification?.permission === 'granted') {
        new Notification('Octavox', { body: says, tag: `octavox-${order}` }).onclick = () => {
            window.focus();
            location.href = link.href;
        };
    }
};

const show = (strip) => {
    const { percent, moving } = strip.dataset;
    const sign = done !== '' && document.hidden ? '✓ ' : '';
    document.title = `${moving === '1' ? `(${percent} %) ` : sign}${own.title}`;
    const wanted = moving === '1' ? `/mark/${10 * Math.floor(percent / 10)}.svg` : own.icon;
    if (icon.getAttribute('href') !== wanted) icon.setAttribute('href', wanted);
    // What was under way when this tab last looked, and is not any more.
    const before = numbers(tab.get('under-way'));
    const now = numbers(strip.dataset.orders);
    tab.set('under-way', now.join(','));
    if (now.includes(browser.get('rang'))) browser.set('rang', '');
    const ended = JSON.parse(strip.dataset.ended || '{}');
    before.filter((order) => !now.includes(order) && ended[order]).forEach((order) => tell(order, ended[order], strip.dataset));
};

let timer = 0;
const look = async () => {
    clearTimeout(timer);
    try {
        const answer = await fetch('/work', { headers: { Accept: 'text/html' } });
        const next = answer.ok ? one('#work', new DOMParser().parseFromString(await answer.text(), 'text/html')) : null;
        const strip = one('#work');
        if (next && strip) {
            // What holds the focus or is under the pointer stays; only its words change.
            if (strip.contains(document.activeElement) || strip.matches(':hover')) {
                const [says, wanted] = [one('.work-says', strip), one('.work-says', next)];
                if (says && wanted) says.textContent = wanted.textContent;
                Object.assign(strip.dataset, next.dataset);
            } else strip.replaceWith(next);
            show(one('#work'));
        }
    } catch {
        /* the server may be away for a moment */
    }
    timer = setTimeout(look, one('#work')?.dataset.moving === '1' ? MOVING : RESTING);
};
document.addEventListener('visibilitychange', () => {
    if (document.hidden) return;
    done = '';
    look();
});
// ---- the page of settings: the sound is heard there, and the browser is asked before it may tell anything ----
document.addEventListener('click', (event) => {
    if (event.target.closest?.('[data-ring]')) ring();
});
document.addEventListener('change', async (event) => {
    if (!event.target.matches?.('[data-asks-notify]') || !event.target.checked) return;
    const answer = window.Notification ? await Notification.requestPermission() : 'denied';
    if (answer === 'granted') return;
    event.target.checked = false;
    one('[data-notify-note]').textContent = 'this browser does not let Octavox tell anything; allow it in its own settings first';
});
look();
