// Words to put into a name: pressed, they go where the cursor is.

document.addEventListener('click', (event) => {
    const chip = event.target.closest?.('[data-word]');
    if (!chip) return;
    const field = document.getElementById(chip.closest('[data-words-for]').dataset.wordsFor);
    const at = field.selectionStart ?? field.value.length;
    if ('wordAlone' in chip.dataset) field.value = chip.dataset.word;
    else if ('wordFirst' in chip.dataset) field.value = chip.dataset.word + field.value.slice(field.value.lastIndexOf('/') + 1);
    else field.value = `${field.value.slice(0, at)}${chip.dataset.word}${field.value.slice(field.selectionEnd ?? at)}`;
    field.focus();
    field.dispatchEvent(new Event('change', { bubbles: true }));
});
