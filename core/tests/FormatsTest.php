<?php

declare(strict_types=1);

use Octavox\Core\Bytes\MemorySink;
use Octavox\Core\Codec\Aac\AacDelay;
use Octavox\Core\Codec\PacketLengths;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\Containers;
use Octavox\Core\Container\Fidelity;
use Octavox\Core\Container\OutputFormat;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Container\Raw\HeaderlessFormat;
use Octavox\Core\Container\Wave\WaveWriter;
use Octavox\Core\Make\Maker;
use Octavox\Core\Make\Result;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Plan\Action;
use Octavox\Core\Plan\CannotPlan;
use Octavox\Core\Reading\FormatTable;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Sound\Channel;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Sound\LayoutNotCarried;
use Octavox\Core\Tag\Cover;
use Octavox\Core\Tag\TagField;
use Octavox\Core\Tag\Tags;
use Octavox\Core\Testing\Planning;
use Octavox\Core\Testing\Spec;
use Octavox\Core\Tests\Support\SampleLibrary;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;

/** @return array<string, array{string}> */
function formatNames(?Fidelity $fidelity = null): array
{
    $names = [];
    foreach (Outputs::all() as $format) {
        if ($format->capabilities()->makes && ! $format->capabilities()->headerless
            && ($fidelity === null || $format->capabilities()->fidelity === $fidelity)) {
            $names[$format->name()] = [$format->name()];
        }
    }

    return $names;
}

function made(string $path, string $format, ?RateControl $rateControl = null, ?int $rate = null, ?Layout $layout = null,
    ?int $bits = null): Result
{
    $wish = Spec::sound(Outputs::named($format) ?? throw new LogicException($format), $rateControl ?? RateControl::none(),
        Scratch::folder(),
        $rate, $bits, $layout);

    return (new Maker)->make(Planning::plan(Reader::read($path), $wish), bin2hex(random_bytes(4)));
}

/** @param  list<list<float>>  $channels */
function waveOf(array $channels, SampleFormat $pcm, int $rate, Layout $layout, ?Tags $tags = null): string
{
    $audio = AudioFormat::pcm($pcm, $rate, $layout);
    [$encoder, $packets] = Signal::encode($audio, RateControl::none(), $channels);
    $sink = new MemorySink;
    $writer = new WaveWriter($sink, $encoder->audio(), $tags ?? Tags::none(), count($channels[0]));
    foreach ($packets as $packet) {
        $writer->write($packet);
    }
    $writer->finish(count($channels[0]), $encoder->audio());

    return Scratch::write('source.wav', $sink->bytes());
}

it('makes every format so that its sound is in place, at its level and of the exact length', function (string $name) {
    $format = Outputs::named($name);
    $mono = $format->capabilities()->mostChannels === 1;
    $rates = $format->capabilities()->rates;
    $rate = $rates === [] || in_array(44100, $rates, true) ? 44100 : $rates[count($rates) - 1];
    $rise = $rate < 10000 ? 0.00001 : 0.000002;
    $sounds = [Signal::sweep(33_333, 0.4, $rise), Signal::sweep(33_333, 0.3, $rise * 1.3)];
    $sounds = $mono ? [$sounds[0]] : $sounds;
    $source = waveOf($sounds, SampleFormat::signed(16), $rate, Layout::undeclared(count($sounds)));
    $result = made($source, $name);
    $reading = Reader::read((string) $result->path);
    $decoded = Signal::decodeFile((string) $result->path);
    $late = count($decoded[0]) - 33_333;
    expect($reading->sound()[0]->timeline->samples())->toBe(count($decoded[0]))
        ->and($late)->toBeGreaterThanOrEqual(0);
    // Formats that cannot say what to leave out present whole frames: their sound begins later.
    $offset = match ($name) {
        'adts' => 1600,
        'mp2' => 481,
        default => 0,
    };
    expect($offset === 0 ? $late : 0)->toBe(0);
    foreach ($sounds as $channel => $samples) {
        expect(Signal::difference($samples, array_slice($decoded[$channel], $offset, 33_333), 1000, 32_000))
            ->toBeLessThan($name === 'gsm' ? -8.0 : -24.0);
    }
    if ($format->capabilities()->fidelity !== Fidelity::Lossy) {
        expect($decoded === Signal::decodeFile($source))->toBeTrue();
    }
    expect(glob(dirname((string) $result->path).'/.*.part') ?: [])->toBe([]);
})->with(formatNames());

it('keeps every sample through every lossless format, at every width', function (int $bits) {
    $names = array_keys([...formatNames(Fidelity::Uncompressed), ...formatNames(Fidelity::Lossless)]);
    $names = array_values(array_filter($names, fn (string $name): bool => $name !== 'float'));
    $scale = 2 ** ($bits - 1);
    $sounds = array_map(fn (int $seed): array => array_map(fn (float $step): float => round($step * $scale) / $scale,
        Signal::steps(10_001, $seed)), [3, 4]);
    $path = waveOf($sounds, SampleFormat::signed($bits), 48000, Layout::stereo());
    $before = Signal::decodeFile($path);
    // Each after each other: the way round once in the order of the registry, once backwards.
    foreach ([...$names, ...array_reverse($names)] as $name) {
        $path = (string) made($path, $name)->path;
        expect(Signal::decodeFile($path) === $before)->toBeTrue($name);
    }
})->with([16, 24]);

it('gives each channel of 5.1 and 7.1 its own place in every format that has them', function (string $name, Layout $layout) {
    // A tone of its own for each channel, low enough for the channel of low frequencies
    $tones = array_map(fn (int $index): array => Signal::sine(24_000, 40.0 + 20 * $index, 48000, 0.3), array_keys($layout->channels));
    if ($name === 'alac' && $layout->count() === 8) {
        // It has another 7.1.
        expect(fn () => made(waveOf($tones, SampleFormat::signed(24), 48000, $layout), $name))->toThrow(LayoutNotCarried::class);

        return;
    }
    $result = made(waveOf($tones, SampleFormat::signed(24), 48000, $layout), $name, RateControl::near(450));
    $decoded = Signal::decodeFile((string) $result->path);
    $reading = Reader::read((string) $result->path)->sound()[0];
    expect($decoded)->toHaveCount($layout->count());
    foreach ($tones as $channel => $tone) {
        // Frames alone cannot say what is to be left out before the first sample.
        $late = $name === 'adts' ? AacDelay::samples(48_000, $layout->count()) : 0;
        expect(Signal::difference($tone, array_slice($decoded[$channel], $late), 4000, 20_000))->toBeLessThan(-10.0);
    }
    expect($name === 'au' ? $layout->name() : $reading->sound->layout->name())->toBe($layout->name());
})->with(array_keys(array_filter(formatNames(), fn (array $name): bool => Outputs::named($name[0])->capabilities()->mostChannels >= 8)))
    ->with(['5.1' => [Layout::fiveOne()], '7.1' => [Layout::sevenOne()]]);

it('puts channels where the format has their speakers, with silence on the others, and refuses what has none',
    function (string $name, Layout $layout, ?string $becomes) {
        $tones = array_map(fn (int $index): array => Signal::sine(24_000, 40.0 + 20 * $index, 48000, 0.3), array_keys($layout->channels));
        $source = waveOf($tones, SampleFormat::signed(16), 48000, $layout);
        if ($becomes === null) {
            expect(fn () => made($source, $name))->toThrow(LayoutNotCarried::class, 'has no place for the channels');

            return;
        }
        $result = made($source, $name, RateControl::near(320));
        $there = Reader::read((string) $result->path)->sound()[0]->sound->layout;
        expect($there->letters())->toBe($becomes);
        $decoded = Signal::decodeFile((string) $result->path);
        foreach ($layout->placesWithin($there->inMaskOrder()) as $to => $from) {
            $from === null
                ? expect(max(array_map(abs(...), array_slice($decoded[$to], 4000, 16_000))))->toBeLessThan(0.01)
                : expect(Signal::difference($tones[$from], $decoded[$to], 4000, 20_000))->toBeLessThan(-10.0);
        }
    })->with(['opus', 'vorbis'])->with([
        '2.1' => [Layout::of(Channel::Left, Channel::Right, Channel::LowFrequency), 'L C R Ls Rs LFE'],
        '3.1' => [Layout::of(Channel::Left, Channel::Right, Channel::Centre, Channel::LowFrequency), 'L C R Ls Rs LFE'],
        'four at the corners' => [Layout::of(Channel::Left, Channel::Right, Channel::BackLeft, Channel::BackRight), 'L R Lb Rb'],
        '4.0' => [Layout::of(Channel::Left, Channel::Right, Channel::Centre, Channel::BackCentre), 'L C R Ls Rs Cs LFE'],
        'wide' => [Layout::of(Channel::Left, Channel::Right, Channel::Centre, Channel::LowFrequency, Channel::BackLeft, Channel::BackRight,
            Channel::LeftOfCentre, Channel::RightOfCentre), null],
    ]);

it('puts channels into the layouts of ALAC', function (Layout $layout, ?string $becomes) {
    $tones = array_map(fn (int $index): array => Signal::sine(12_000, 40.0 + 20 * $index, 48000, 0.3), array_keys($layout->channels));
    $source = waveOf($tones, SampleFormat::signed(16), 48000, $layout);
    if ($becomes === null) {
        expect(fn () => made($source, 'alac'))->toThrow(LayoutNotCarried::class, 'has no place for the channels');

        return;
    }
    $result = made($source, 'alac');
    $there = Reader::read((string) $result->path)->sound()[0]->sound->layout;
    expect($there->letters())->toBe($becomes);
    $decoded = Signal::decodeFile((string) $result->path);
    foreach ($layout->placesWithin($there->inMaskOrder()) as $to => $from) {
        expect($decoded[$to])->toBe($from === null ? array_fill(0, 12_000, 0.0) : Signal::decodeFile($source)[$from]);
    }
})->with([
    '2.1' => [Layout::of(Channel::Left, Channel::Right, Channel::LowFrequency), 'C L R Ls Rs LFE'],
    'four at the corners' => [Layout::of(Channel::Left, Channel::Right, Channel::BackLeft, Channel::BackRight), 'C L R Ls Rs'],
    '4.0' => [Layout::of(Channel::Left, Channel::Right, Channel::Centre, Channel::BackCentre), 'C L R Cs'],
    '7.1' => [Layout::sevenOne(), null],
]);

it('carries tags and cover into every format that has a place for them', function (string $name) {
    $tags = Tags::none()->with(TagField::Title, 'Boat lift “Nº 3” 🚤')->with(TagField::Artist, 'M. Harrow')
        ->with(TagField::Comment, 'Gate three')->with(TagField::Copyright, 'Canal Society');
    $cover = new Cover('image/png', "\x89PNG\r\n\x1A\n".str_repeat('made up ', 50));
    $source = Signal::mp3([Signal::sweep(48_000)], RateControl::exactly(128), tags: $tags->withCover($cover));
    $result = made(Scratch::write('tagged.mp3', $source), $name);
    $read = Containers::openFile((string) $result->path)->tags();
    $some = ['au' => ['title'], 'ima' => null, 'msadpcm' => null, 'gsm' => null][$name] ?? array_keys($tags->values());
    expect(array_keys($read->values()))->toEqualCanonicalizing($some)
        ->and($read->get(TagField::Title))->toBe($tags->get(TagField::Title));
    if (in_array($name, ['mp3', 'mp2', 'adts', 'flac', 'alac', 'aac', 'opus', 'vorbis', 'wavpack', 'aiff'], true)) {
        expect($read->cover?->bytes)->toBe($cover->bytes);
    }
})->with(formatNames());

it('copies packets untouched where only the container changes', function (string $name, string $again) {
    $sounds = [Signal::sweep(40_000), Signal::sweep(40_000, 0.2)];
    $first = made(waveOf($sounds, SampleFormat::signed(16), 48000, Layout::stereo()), $name);
    $second = made((string) $first->path, $again);
    expect($second->plan->sounds[0]->action)->toBe(Action::Kept)
        ->and(Signal::packetsOf((string) $second->path))->toBe(Signal::packetsOf((string) $first->path));
})->with([
    ['mp3', 'mp3'], ['mp2', 'mp2'], ['flac', 'flac'], ['alac', 'alac'], ['opus', 'opus'], ['vorbis', 'vorbis'], ['wavpack', 'wavpack'],
    ['aac', 'aac'], ['aac', 'adts'], ['adts', 'aac'], ['adts', 'adts'], ['wav', 'caf'], ['caf', 'wav'], ['aiff', 'aiff'],
    ['au', 'aiff'], ['ima', 'ima'],
]);

it('copies GSM and telephone ADPCM untouched', function () {
    $source = waveOf([Signal::sweep(20_001, 0.4, 0.00001)], SampleFormat::signed(16), 8000, Layout::mono());
    $gsm = made($source, 'gsm');
    $vox = made($source, 'vox');
    $stated = Planning::plan(Reader::read((string) $vox->path, HeaderlessFormat::parse('vox:8000')),
        Spec::sound(Outputs::named('vox'), RateControl::none(), Scratch::folder()));
    $again = (new Maker)->make($stated, 'again');
    expect(Signal::packetsOf((string) made((string) $gsm->path, 'gsm')->path))->toBe(Signal::packetsOf((string) $gsm->path))
        ->and($stated->sounds[0]->action)->toBe(Action::Kept)
        ->and(file_get_contents((string) $again->path))->toBe(file_get_contents((string) $vox->path))
        ->and(filesize((string) $vox->path))->toBe(10_001);
});

it('writes files that an independent reader finds exact', function (string $name) {
    $sounds = [Signal::steps(5_000, 1), Signal::steps(5_000, 2)];
    $result = made(waveOf($sounds, SampleFormat::signed(16), 48000, Layout::stereo()), $name);
    [$frames, $rate, $channels, $samples] = SampleLibrary::read((string) $result->path);
    expect([$frames, $rate, $channels])->toBe([5_000, 48000, 2]);
    if (Outputs::named($name)->capabilities()->fidelity !== Fidelity::Lossy) {
        expect($samples)->toEqualWithDelta([array_slice($sounds[0], 0, 1000), array_slice($sounds[1], 0, 1000)], 1e-6);
    }
})->with(['wav', 'float', 'aiff', 'caf', 'au', 'flac', 'opus', 'vorbis', 'alaw', 'ulaw']);

it('reads files that another party wrote', function (string $name, int $format, string $container, string $codec, float $close) {
    $sounds = [Signal::sweep(20_000, 0.4, 0.000002), Signal::sweep(20_000, 0.3, 0.000003)];
    $path = SampleLibrary::write(Scratch::folder().'/'.$name, $format, $sounds);
    $reading = Reader::read($path);
    $track = $reading->sound()[0];
    expect([$reading->container, $track->sound->codec->value, $track->sound->rate, $track->sound->layout->name(), $reading->findings])
        ->toBe([$container, $codec, 48000, 'stereo', []]);
    // Blocks of ADPCM are filled up, and this writer does not say by how much.
    expect($track->timeline->samples())->toBeGreaterThanOrEqual(20_000)
        ->toBeLessThanOrEqual(20_000 + (str_contains($codec, 'adpcm') ? 2040 : 0));
    $decoded = Signal::decodeFile($path);
    expect(Signal::difference($sounds[0], $decoded[0], 100, 19_000))->toBeLessThan($close)
        ->and(Signal::difference($sounds[1], $decoded[1], 100, 19_000))->toBeLessThan($close);
})->with([
    ['a.w64', 0x0B0000 | 0x0003, 'w64', 'pcm', -100.0],
    ['b.w64', 0x0B0000 | 0x0006, 'w64', 'pcm', -100.0],
    ['a.aiff', 0x020000 | 0x0002, 'aiff', 'pcm', -80.0],
    ['b.aifc', 0x020000 | 0x0006, 'aiff', 'pcm', -100.0],
    ['c.aifc', 0x020000 | 0x0012, 'aiff', 'ima-adpcm', -20.0],
    ['a.caf', 0x180000 | 0x0003, 'caf', 'pcm', -100.0],
    ['b.caf', 0x180000 | 0x0070, 'caf', 'alac', -80.0],
    ['a.au', 0x030000 | 0x0003, 'au', 'pcm', -100.0],
    ['a.flac', 0x170000 | 0x0003, 'flac', 'flac', -100.0],
    ['a.ogg', 0x200000 | 0x0060, 'ogg', 'vorbis', -20.0],
    ['a.opus', 0x200000 | 0x0064, 'ogg', 'opus', -20.0],
    ['a.rf64.wav', 0x220000 | 0x0003, 'wav', 'pcm', -100.0],
    ['ima.wav', 0x010000 | 0x0012, 'wav', 'ima-adpcm', -20.0],
    ['ms.wav', 0x010000 | 0x0013, 'wav', 'ms-adpcm', -20.0],
]);

it('makes a piece from the middle of long Ogg and FLAC files without reading all of it', function (string $name, int $tolerance) {
    $sounds = [Signal::sweep(400_000, 0.4, 0.0000002)];
    $path = (string) made(waveOf($sounds, SampleFormat::signed(16), 48000, Layout::mono()), $name)->path;
    $media = Containers::openFile($path);
    $track = $media->tracks()[0];
    $before = $media->source()->bytesRead();
    $packets = [];
    foreach ($media->packets($track, 300_000, 310_000) as $packet) {
        $packets[] = $packet;
    }
    $lengths = PacketLengths::for($track->sound);
    expect($packets[0]->start)->toBeLessThanOrEqual(300_000)->toBeGreaterThan(300_000 - $tolerance)
        ->and($packets[count($packets) - 1]->start)->toBeLessThan(310_000)
        ->and($lengths->samples($packets[1]->data) >= 0)->toBeTrue()
        ->and($media->source()->bytesRead() - $before)->toBeGreaterThan(0);
    for ($index = 1; $index < count($packets); $index++) {
        expect($packets[$index]->start)->toBe($packets[$index - 1]->start + $packets[$index - 1]->length);
    }
})->with([['opus', 60_000], ['vorbis', 100_000], ['flac', 300_000]]);

it('plays chained Ogg files as one recording', function () {
    $parts = array_map(fn (int $count): array => [Signal::sweep($count, 0.4, 0.000002)], [30_000, 20_001]);
    foreach (['opus', 'vorbis'] as $name) {
        $files = array_map(fn (array $sound): string => (string) file_get_contents((string) made(waveOf($sound, SampleFormat::signed(16),
            48000, Layout::mono()),
            $name)->path), $parts);
        // Two logical streams may not share a serial number; the second gets another, and its sums are made anew.
        $chained = Scratch::write('chained.ogg', $files[0].renumbered($files[1], 0x1234));
        $decoded = Signal::decodeFile($chained);
        expect(count($decoded[0]))->toBe(50_001)
            ->and(Signal::difference($parts[0][0], array_slice($decoded[0], 0, 30_000), 1000, 28_000))->toBeLessThan(-20.0)
            ->and(Signal::difference($parts[1][0], array_slice($decoded[0], 30_000), 1000, 19_000))->toBeLessThan(-20.0);
    }
});

it('says what formats that are only kept cannot be made of', function () {
    $wave = waveOf([Signal::sweep(4800)], SampleFormat::signed(16), 48000, Layout::mono());
    expect(fn () => made($wave, 'ac3'))->toThrow(CannotPlan::class, 'copied untouched')
        ->and(fn () => made(waveOf(array_fill(0, 6, Signal::sweep(480)), SampleFormat::signed(16), 48000, Layout::fiveOne()), 'mp3'))
        ->toThrow(CannotPlan::class, 'stereo or mono');
});

it('keeps docs/formats.md true', function () {
    expect(FormatTable::markdown())->toBe((string) file_get_contents(__DIR__.'/../../docs/formats.md'))
        ->not->toContain('Octavox\\Core\\Container');
});

it('names every format once and lists them all in the help', function () {
    $names = array_map(fn (OutputFormat $format): string => $format->name(), Outputs::all());
    expect(array_unique($names))->toBe($names);
    foreach ($names as $name) {
        expect((string) file_get_contents(__DIR__.'/../../cli/help.txt'))->toMatch('/\b'.$name.'\b/');
    }
});

/** The pages of an Ogg file under another serial number, with right sums. */
function renumbered(string $ogg, int $serial): string
{
    $pages = explode('OggS', $ogg);
    array_shift($pages);
    $result = '';
    foreach ($pages as $page) {
        $page = 'OggS'.substr_replace(substr_replace($page, pack('V', $serial), 10, 4), "\0\0\0\0", 18, 4);
        $sum = 0;
        for ($at = 0; $at < strlen($page); $at++) {
            $sum ^= ord($page[$at]) << 24;
            for ($bit = 0; $bit < 8; $bit++) {
                $sum = ($sum & 0x80000000) !== 0 ? ($sum << 1 ^ 0x04C11DB7) & 0xFFFFFFFF : $sum << 1;
            }
        }
        $result .= substr_replace($page, pack('V', $sum), 22, 4);
    }

    return $result;
}
