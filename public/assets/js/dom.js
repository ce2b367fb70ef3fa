// What every part of the page needs to find its way in the document.

export const one = (selector, root = document) => root.querySelector(selector);

export const all = (selector, root = document) => [...root.querySelectorAll(selector)];

export const token = () => one('meta[name=csrf-token]').content;

/** The boxes from the one that was pressed last to this one, where Shift is held; else this one. */
export const stretch = (boxes, last, box, isShift) => {
    const [from, to] = [boxes.findIndex((other) => other.value === last), boxes.indexOf(box)];

    return isShift && from >= 0 ? boxes.slice(Math.min(from, to), Math.max(from, to) + 1) : [box];
};

/** A document that an answer holds. */
export const parsed = (text) => new DOMParser().parseFromString(text, 'text/html');
