// Which fields somebody has changed since the server said what they hold.

export const usual = (field) =>
    field.tagName === 'SELECT'
        ? ([...field.options].find((option) => option.defaultSelected) ?? field.options[0])?.value
        : field.defaultValue;

export const isChanged = (field) =>
    ['checkbox', 'radio'].includes(field.type) ? field.checked !== field.defaultChecked : field.value !== usual(field);

export const changedOf = (form) =>
    [...form.elements].filter(
        (field) => field.name && !['hidden', 'submit', 'button', 'radio', 'fieldset'].includes(field.type) && isChanged(field),
    );

export const sentValue = (field) => (field.type === 'checkbox' ? (field.checked ? '1' : '0') : field.value.replaceAll('–', '-'));

/** The server has what was sent. */
export const settle = (field, value) => {
    if (field.type === 'checkbox') field.defaultChecked = value === '1';
    else if (field.tagName === 'SELECT')
        [...field.options].forEach((option) => {
            option.defaultSelected = option.value === value;
        });
    else field.defaultValue = value;
};
