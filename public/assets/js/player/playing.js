// Playing: the server decodes the stretch that is asked for, the browser plays it and mutes channels.

/** Loudness on the left and on the right of a channel. */
const sides = (letter, index, channels) => {
    if (/^[LR]/.test(letter) && letter !== 'LFE') return letter[0] === 'L' ? [1, 0] : [0, 1];
    if (letter === 'LFE') return [0.5, 0.5];
    if (/^\d/.test(letter)) return index % 2 === 0 ? [1, 0] : [0, 1];

    return channels === 1 ? [1, 1] : [0.7, 0.7];
};

const pause = (ms) =>
    new Promise((done) => {
        window.setTimeout(done, ms);
    });

export const playingOf = (root, facts, { silent, reached, say }) => {
    const channels = facts.letters.length;
    const button = root.querySelector('[data-play]');
    let sound = null;
    let gains = [];
    let run = 0;
    let plan = [];
    const played = (isPlaying) => {
        button.textContent = isPlaying ? 'Stop' : 'Play';
        if (isPlaying) root.dataset.playing = '1';
        else delete root.dataset.playing;
    };
    const desk = () => {
        sound ??= new AudioContext();
        if (gains.length > 0) return;
        const merger = sound.createChannelMerger(2);
        merger.connect(sound.destination);
        gains = facts.letters.map((letter, index) => {
            const gain = sound.createGain();
            sides(letter, index, channels).forEach((level, side) => {
                if (level === 0) return;
                const pan = sound.createGain();
                pan.gain.value = level;
                gain.connect(pan);
                pan.connect(merger, 0, side);
            });

            return gain;
        });
    };
    const mute = () => gains.forEach((gain, index) => gain.gain.setValueAtTime(silent.has(index) ? 0 : 1, sound.currentTime));
    const stop = () => {
        run += 1;
        plan.forEach((entry) => entry.node.stop());
        plan = [];
        played(false);
    };
    const decode = async (from, count) => {
        const answer = await fetch(`${root.dataset.sound}?from=${from}&count=${count}`);
        const bytes = await answer.arrayBuffer();

        return new Int16Array(bytes, 0, Math.floor(bytes.byteLength / 2));
    };
    const play = async (ranges) => {
        stop();
        const mine = run;
        desk();
        await sound.resume();
        mute();
        played(true);
        let when = 0;
        let next = 1;
        for (const [from, until] of ranges) {
            for (let at = from; at < until; ) {
                const count = Math.min(Math.ceil(facts.rate * next), until - at);
                next = Math.min(12, next * 3);
                let values;
                try {
                    values = await decode(at, count);
                } catch {
                    say('The connection is gone; play it again once it is back.');
                    stop();

                    return;
                }
                if (mine !== run) return;
                const frames = Math.floor(values.length / channels);
                if (frames === 0) break;
                const buffer = sound.createBuffer(channels, frames, facts.rate);
                for (let channel = 0; channel < channels; channel += 1) {
                    const data = buffer.getChannelData(channel);
                    for (let index = 0; index < frames; index += 1) data[index] = values[index * channels + channel] / 32768;
                }
                const node = sound.createBufferSource();
                node.buffer = buffer;
                if (channels === 1) node.connect(gains[0]);
                else {
                    const splitter = sound.createChannelSplitter(channels);
                    node.connect(splitter);
                    gains.forEach((gain, index) => splitter.connect(gain, index));
                }
                when = Math.max(when, sound.currentTime + 0.03);
                node.start(when);
                plan.push({ node, at, when, frames });
                when += frames / facts.rate;
                at += frames;
                if (plan.length === 1) follow(mine);
                while (mine === run && when - sound.currentTime > 25) await pause(400);
                if (mine !== run) return;
            }
        }
        while (mine === run && sound.currentTime < when) await pause(60);
        if (mine === run) stop();
    };
    const follow = (mine) => {
        if (mine !== run) return;
        const current = [...plan].reverse().find((entry) => entry.when <= sound.currentTime);
        if (current) reached(current.at + Math.min(current.frames, (sound.currentTime - current.when) * facts.rate));
        window.requestAnimationFrame(() => follow(mine));
    };
    const join = (before, after) => {
        const span = 2 * facts.rate;
        play([
            [Math.max(before[0], before[1] - span), before[1]],
            [after[0], Math.min(after[1], after[0] + span)],
        ]);
    };

    return {
        play,
        stop,
        join,
        decode,
        isPlaying: () => Boolean(root.dataset.playing),
        mute: () => {
            if (sound) mute();
        },
    };
};
