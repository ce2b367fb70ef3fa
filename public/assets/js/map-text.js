// Channel maps as text: files separated by /, channels by a comma, sums by +, a gain after @, a minus before what is flipped.

const IS_MAP = /^[\d@.,+\-/ ]+$/;

export const isMap = (text) => IS_MAP.test(text);

/** Files → channels → gains in decibels, and whether they are flipped, by the channel that comes in. */
export const readMap = (text) =>
    text.split('/').map((file) =>
        file.split(',').map((row) => {
            const gains = new Map();
            if (row.trim() === '0') return gains;
            row.replaceAll('+-', '+~')
                .split('+')
                .forEach((term) => {
                    const parts = /^\s*([-~]?)(\d+)(?:@(~?[-+]?[\d.]+))?\s*$/.exec(term);
                    if (parts)
                        gains.set(Number(parts[2]) - 1, {
                            decibels: Number((parts[3] || '0').replace('~', '-')),
                            flipped: parts[1] !== '',
                        });
                });

            return gains;
        }),
    );

const writeGain = ([input, { decibels, flipped }]) => `${flipped ? '-' : ''}${input + 1}${decibels === 0 ? '' : `@${decibels}`}`;

const writeChannel = (gains) =>
    gains.size === 0
        ? '0'
        : [...gains.entries()]
              .sort((a, b) => a[0] - b[0])
              .map(writeGain)
              .join('+');

export const writeMap = (files) => files.map((rows) => rows.map(writeChannel).join(',')).join('/');
