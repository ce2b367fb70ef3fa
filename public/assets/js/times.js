// Times, as they are typed and shown: minutes and seconds, samples (48000#), or pictures (250f).

const padded = (value, width = 2) => String(value).padStart(width, '0');

export const clock = (samples, rate) => {
    const ms = Math.floor((samples * 1000) / rate);
    const rest = `${padded(Math.floor(ms / 1000) % 60)}.${padded(ms % 1000, 3)}`;

    return ms >= 3600000
        ? `${Math.floor(ms / 3600000)}:${padded(Math.floor(ms / 60000) % 60)}:${rest}`
        : `${Math.floor(ms / 60000)}:${rest}`;
};

/** Samples; null where it is no time. Pictures count only where there are some. */
export const parseTime = (text, { rate, frames, samples }) => {
    const value = text.trim().toLowerCase();
    let parts = /^(?:(?:(\d+):)?(\d+):)?(\d+(?:[.,]\d+)?)s?$/.exec(value);
    if (parts) return Math.round((Number(parts[1] || 0) * 3600 + Number(parts[2] || 0) * 60 + Number(parts[3].replace(',', '.'))) * rate);
    parts = /^(\d+)#$/.exec(value);
    if (parts) return Number(parts[1]);
    parts = /^(\d+)f$/.exec(value);
    if (parts && frames > 0) return Math.round((Number(parts[1]) * rate) / frames);

    return value === 'end' ? samples : null;
};
