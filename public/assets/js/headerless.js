// A file without a header: what is tried is heard and drawn at once.

const begin = (form) => {
    const canvas = form.querySelector('canvas');
    const audio = form.querySelector('audio');
    const says = form.querySelector('[data-headerless-says]');
    const HEADER = 44;
    const SECONDS = 20;
    let asked = 0;

    const tried = () => `${form.kind.value}:${form.rate.value.trim()}:${form.channels.value}`;

    const draw = (samples, channels, rate) => {
        const context = canvas.getContext('2d');
        const style = getComputedStyle(document.body);
        context.clearRect(0, 0, canvas.width, canvas.height);
        context.fillStyle = style.getPropertyValue('--damson');
        const height = canvas.height / channels;
        const frames = Math.floor(samples.length / channels);
        for (let channel = 0; channel < channels; channel += 1) {
            for (let x = 0; x < canvas.width; x += 1) {
                let [low, high] = [0, 0];
                const until = Math.floor(((x + 1) * frames) / canvas.width);
                for (let at = Math.floor((x * frames) / canvas.width); at < until; at += 1) {
                    const value = samples[at * channels + channel];
                    if (value < low) low = value;
                    if (value > high) high = value;
                }
                const middle = (channel + 0.5) * height;
                context.fillRect(x, middle - (high / 32768) * height * 0.5, 1, Math.max(1, ((high - low) / 32768) * height * 0.5));
            }
        }
        says.textContent = `the first ${(frames / rate).toFixed(1)} seconds, read like this`;
    };

    const attempt = async () => {
        asked += 1;
        const own = asked;
        const channels = Number(form.channels.value);
        const rate = Number(form.rate.value);
        const address = `${form.dataset.headerless}?as=${encodeURIComponent(tried())}`;
        if (!(rate >= 1000 && rate <= 768000)) {
            says.textContent = 'Between 1,000 and 768,000 samples a second.';
            return;
        }
        const wasPlaying = !audio.paused;
        audio.src = address;
        if (wasPlaying) audio.play().catch(() => {});
        says.textContent = 'being decoded';
        try {
            const answer = await fetch(address, {
                headers: { Range: `bytes=0-${HEADER + 2 * channels * Math.min(rate * SECONDS, 4e6) - 1}` },
            });
            const bytes = await answer.arrayBuffer();
            if (own !== asked) return;
            if (!answer.ok) throw new Error();
            draw(
                new Int16Array(bytes.slice(HEADER, HEADER + 2 * channels * Math.floor((bytes.byteLength - HEADER) / (2 * channels)))),
                channels,
                rate,
            );
        } catch {
            if (own === asked) says.textContent = 'It cannot be read like this; telephone codings have one channel.';
        }
    };

    form.addEventListener('change', (event) => {
        if (['kind', 'rate', 'channels'].includes(event.target.name)) attempt();
    });
    form.addEventListener('click', (event) => {
        const { guess } = event.target.dataset;
        if (!guess) return;
        [form.kind.value, form.rate.value, form.channels.value] = guess.split(':');
        attempt();
    });
    attempt();
};

const form = document.querySelector('[data-headerless]');
if (form) begin(form);
