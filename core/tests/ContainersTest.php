<?php

declare(strict_types=1);

use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Codec\Vorbis\VorbisLayout;
use Octavox\Core\Container\IsoMedia\SoundEntry;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Make\Maker;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Packet;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Media\SampleKind;
use Octavox\Core\Order\OutputSpec;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Testing\Planning;
use Octavox\Core\Testing\Spec;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;
use Octavox\Core\Tests\Support\Video;

/** Containers and what they are tried with: name, form, kbit/s, whether the container says what to leave out. */
function containerCases(): array
{
    $stereo = Layout::stereo();
    $aac = new AudioFormat(Codec::Aac, 48000, $stereo);
    $mp3 = new AudioFormat(Codec::Mp3, 48000, $stereo, null, '', 1152);
    $mp2 = new AudioFormat(Codec::Mp2, 48000, $stereo, null, '', 1152);
    $opus = new AudioFormat(Codec::Opus, 48000, $stereo);
    $vorbis = new AudioFormat(Codec::Vorbis, 44100, $stereo);
    $flac = new AudioFormat(Codec::Flac, 44100, $stereo, null, '', 0, '', 16);
    $alac = new AudioFormat(Codec::Alac, 44100, $stereo, null, '', 0, '', 24);
    $pcm = fn (SampleFormat $audio, int $rate = 48000): AudioFormat => AudioFormat::pcm($audio, $rate, $stereo);
    $ima = new AudioFormat(Codec::AdpcmIma, 22050, $stereo);

    return [
        'mp4 aac' => ['mp4', $aac, true], 'mp4 mp3' => ['mp4', $mp3, true], 'mp4 opus' => ['mp4', $opus, true],
        'mp4 flac' => ['mp4', $flac, true], 'mp4 alac' => ['mp4', $alac, true],
        'mp4 pcm' => ['mp4', $pcm(SampleFormat::signed(24, true)), true],
        'mov aac' => ['mov', $aac, true], 'mov alac' => ['mov', $alac, true], 'mov mp3' => ['mov', $mp3, true],
        'mov pcm16' => ['mov', $pcm(SampleFormat::signed(16)), true],
        'mov pcm16 big' => ['mov', $pcm(SampleFormat::signed(16, true)), true],
        'mov pcm24' => ['mov', $pcm(SampleFormat::signed(24)), true],
        'mov float' => ['mov', $pcm(SampleFormat::float(32)), true],
        'mov pcm 96 kHz' => ['mov', $pcm(SampleFormat::signed(24, true), 96000), true],
        'mov µ-law' => ['mov', $pcm(new SampleFormat(SampleKind::MuLaw, 8)), true],
        'mov 8 bits' => ['mov', $pcm(SampleFormat::unsigned8()), true],
        'mkv aac' => ['mkv', $aac, true], 'mkv mp3' => ['mkv', $mp3, true], 'mkv mp2' => ['mkv', $mp2, true],
        'mkv opus' => ['mkv', $opus, true], 'mkv vorbis' => ['mkv', $vorbis, true], 'mkv flac' => ['mkv', $flac, true],
        'mkv alac' => ['mkv', $alac, true], 'mkv pcm' => ['mkv', $pcm(SampleFormat::signed(24)), true],
        'mkv pcm big' => ['mkv', $pcm(SampleFormat::signed(16, true)), true],
        'mkv float' => ['mkv', $pcm(SampleFormat::float(32)), true],
        'webm opus' => ['webm', $opus, true], 'webm vorbis' => ['webm', $vorbis, true],
        'ts aac' => ['ts', $aac, false], 'ts mp2' => ['ts', $mp2, false], 'ts mp3' => ['ts', $mp3, false],
        'm2ts aac' => ['m2ts', $aac, false], 'm2ts disc pcm' => ['m2ts', $pcm(SampleFormat::signed(16, true)), false],
        'm2ts disc pcm 24' => ['m2ts', $pcm(SampleFormat::signed(24, true)), false], '204 bytes mp2' => ['ts204', $mp2, false],
        'mpg mp2' => ['mpg', $mp2, false],
        'mpg disc pcm' => ['mpg', new AudioFormat(Codec::Pcm, 48000, $stereo, SampleFormat::signed(16, true), '', 0, 'disc'), false],
        'avi pcm' => ['avi', $pcm(SampleFormat::signed(16)), false], 'avi mp3' => ['avi', $mp3, false], 'avi ima' => ['avi', $ima, false],
        'flv aac' => ['flv', $aac, false], 'flv mp3' => ['flv', $mp3, false],
        'flv pcm' => ['flv', $pcm(SampleFormat::signed(16), 44100), false],
    ];
}

/**
 * @return array{string, int, int, list<list<float>>, list<Packet>, AudioFormat} path, samples presented, offset of the sound in them, what
 * went in
 */
function containerOf(string $container, AudioFormat $audio, bool $tells, int $late = 0): array
{
    $count = 50_001;
    $sounds = [Signal::sweep($count, 0.4, 0.000003), Signal::sweep($count, 0.3, 0.000004)];
    if ($audio->codec === Codec::AdpcmIma) {
        $audio = Outputs::named('ima')->audio($audio, $audio->rate, $audio->layout, null);
    }
    [$encoder, $packets] = Signal::encode($audio, RateControl::exactly($audio->codec === Codec::Vorbis ? 160 : 192), $sounds);
    $made = $audio->variant === 'disc' ? $audio : $encoder->audio();
    $coded = array_sum(array_map(fn (Packet $packet): int => $packet->length, $packets));
    $path = Scratch::write('video.'.$container,
        Video::of($container, $made, $packets, $tells ? $encoder->delay() : 0, $tells ? $count : $coded, $late));

    return [$path, $tells ? $count : $coded, $tells ? 0 : $encoder->delay(), $sounds, $packets, $made];
}

it('reads the exact number of samples, in place, from every container and codec',
    function (string $container, AudioFormat $audio, bool $tells) {
        [$path, $samples, $offset, $sounds] = containerOf($container, $audio, $tells);
        $reading = Reader::read($path);
        $track = $reading->sound()[0];
        $decoded = Signal::decodeFile($path);
        expect($track->sound->codec)->toBe($audio->codec)
            ->and($track->sound->rate)->toBe($audio->rate)
            ->and($track->sound->layout->name())->toBe('stereo')
            ->and($track->timeline->samples())->toBe($samples)
            ->and(count($decoded[0]))->toBe($samples)
            ->and($track->timeline->startOffset)->toBe(0)
            ->and($reading->picture())->not->toBeNull();
        $clean = array_filter($reading->findings,
            fn ($finding): bool => ! in_array($finding->code(), ['extension-differs', 'low-rate'],
                true));
        expect($clean)->toBe([]);
        foreach ($sounds as $channel => $sound) {
            $close = CodecModules::of($audio->codec)->isLossless() ? ($audio->pcm?->bits === 8 ? -25.0 : -75.0) : -20.0;
            expect(Signal::difference($sound, array_slice($decoded[$channel], $offset), 3000, 47_000))->toBeLessThan($close);
        }
    })->with(containerCases());

it('starts sound that begins late with the picture, by exactly so much silence',
    function (string $container, AudioFormat $audio, bool $tells) {
        [$path, $samples, $offset, $sounds] = containerOf($container, $audio, $tells, 250);
        $late = intdiv($audio->rate, 4);
        $track = Reader::read($path)->sound()[0];
        $result = (new Maker)
            ->make(Planning::plan(Reader::read($path), Spec::sound(Outputs::named('wav'), RateControl::none(), Scratch::folder())), 'late');
        $decoded = Signal::decodeFile((string) $result->path);
        expect($track->timeline->startOffset)->toBe($late)
            ->and(count($decoded[0]))->toBe($late + $samples)
            ->and(max(array_map(abs(...), array_slice($decoded[0], 0, $late - 2000))))->toBeLessThan(2.5 / 32768)
            ->and(Signal::difference($sounds[0], array_slice($decoded[0], $late + $offset), 3000, 47_000))
            ->toBeLessThan($audio->pcm?->bits === 8 ? -25.0 : -20.0);
    })->with(array_filter(containerCases(),
        fn (array $video): bool => in_array($video[0], ['mp4', 'mov', 'mkv', 'ts', 'm2ts', 'mpg', 'flv'], true)
        && in_array($video[1]->codec, [Codec::Aac, Codec::Opus, Codec::Mp2, Codec::Pcm, Codec::Mp3], true) && ($video[1]->rate % 4 === 0)
        && ! ($video[0] === 'flv' && $video[1]->codec === Codec::Pcm)));

it('keeps the packets of every container byte for byte', function (string $container, AudioFormat $audio, bool $tells) {
    [$path, , , , $packets] = containerOf($container, $audio, $tells);
    $format = match ($audio->codec) {
        Codec::Aac => 'aac',
        Codec::Mp3 => 'mp3',
        Codec::Mp2 => 'mp2',
        Codec::Opus => 'opus',
        Codec::Vorbis => 'vorbis',
        Codec::Flac => 'flac',
        default => 'alac',
    };
    $result = (new Maker)
        ->make(Planning::plan(Reader::read($path), Spec::sound(Outputs::named($format), RateControl::none(), Scratch::folder())), 'kept');
    expect($result->plan->sounds[0]->action->value)->toBe('kept')
        ->and(Signal::packetsOf((string) $result->path))
        ->toBe(hash('xxh128', implode('', array_map(fn (Packet $packet): string => $packet->data, $packets))));
})->with(array_filter(containerCases(), fn (array $video): bool => ! in_array($video[1]->codec, [Codec::Pcm, Codec::AdpcmIma], true)));

it('begins in the middle of every container at the right sample', function (string $container, AudioFormat $audio, bool $tells) {
    [$path] = containerOf($container, $audio, $tells);
    $reading = Octavox\Core\Reading\Opener::open($path);
    $track = $reading->sound()[0];
    $feed = new Octavox\Core\Decode\TrackDecoder($reading->media, $track);
    $first = $track->timeline->segments[0]->from;
    $all = '';
    foreach ($feed->blocks([Octavox\Core\Media\Segment::media($first, 40_000)]) as $block) {
        $all .= $block->bytes();
    }
    $part = '';
    foreach ($feed->blocks([Octavox\Core\Media\Segment::media($first + 30_000, 5_000)]) as $block) {
        $part .= $block->bytes();
    }
    $wanted = unpack('f*', substr($all, 30_000 * 8, 5_000 * 8));
    $given = unpack('f*', $part);
    expect(count($given))->toBe(10_000);
    // Times of a millisecond may place PCM and Vorbis a sample or two beside it.
    $best = 0.0;
    foreach ([0, -2, 2, -4, 4, -20, 20, -40, 40, -44, 44, -48, 48] as $shift) {
        $best = min($best,
            Signal::difference(array_slice(array_values($wanted), 1000, 8000), array_slice(array_values($given), 1000 + $shift, 8000)));
    }
    expect($best)->toBeLessThan($audio->codec === Codec::AdpcmIma || $audio->pcm?->bits === 8 ? -20.0 : -30.0);
})->with(array_filter(containerCases(), fn (array $video): bool => in_array($video[0], ['mp4', 'mkv', 'ts', 'mpg', 'avi', 'flv'], true)));

it('puts every channel of disc sound in its place', function (SampleFormat $pcm) {
    $layout = Layout::fiveOne();
    $tones = array_map(fn (int $index): array => Signal::sine(24_000, 100.0 + 150 * $index, 48000, 0.3), array_keys($layout->channels));
    $audio = AudioFormat::pcm($pcm, 48000, $layout);
    $disc = $audio->withLayout(Layout::of(...array_map(fn (int $place) => $layout->channels[$place], [0, 1, 2, 4, 5, 3])));
    [, $packets] = Signal::encode($disc, RateControl::none(), array_map(fn (int $place): array => $tones[$place], [0, 1, 2, 4, 5, 3]));
    $decoded = Signal::decodeFile(Scratch::write('six.m2ts', Video::of('m2ts', $disc, $packets, 0, 24_000)));
    foreach ($tones as $channel => $tone) {
        expect(Signal::difference($tone, $decoded[$channel]))->toBeLessThan(-60.0);
    }
})->with([[SampleFormat::signed(16, true)], [SampleFormat::signed(24, true)]]);

it('reads the picture facts and the language of every container', function (string $container, AudioFormat $audio, bool $tells) {
    [$path] = containerOf($container, $audio, $tells);
    $reading = Reader::read($path);
    expect($reading->picture()->picture->perSecond)->toEqualWithDelta(25.0, 0.6)
        ->and($reading->picture()->picture->startOffset)->toEqualWithDelta(0.0, 1e-6);
    if (in_array($container, ['mp4', 'mov', 'mkv', 'webm', 'ts', 'm2ts', 'ts204'], true)) {
        expect($reading->sound()[0]->language)->toBe('eng');
    }
})->with(array_intersect_key(containerCases(),
    array_flip(['mp4 aac', 'mov pcm16', 'mkv opus', 'webm vorbis', 'ts aac', 'm2ts aac', '204 bytes mp2', 'mpg mp2',
        'avi mp3', 'flv aac'])));

it('names the codecs that nobody here decodes, keeps them where a container carries them, and refuses to remake them', function () {
    $frame = "\x0B\x77\x01\xFF\x3F\x86".str_repeat("\x2A", 1018);
    $video = Scratch::write('e.ac3', str_repeat($frame, 40));
    $reading = Reader::read($video);
    $wish = fn (string $format): OutputSpec => Spec::sound(Outputs::named($format), RateControl::none(), Scratch::folder());
    expect($reading->sound()[0]->sound->codec)->toBe(Codec::Eac3)
        ->and($reading->findings[0]->code())->toBe('codec-not-decodable')
        ->and(fn () => Planning::plan($reading, $wish('wav')))->toThrow(Octavox\Core\Codec\CodecNotDecodable::class, 'E-AC-3');
    foreach (['eac3', 'mka'] as $format) {
        $kept = (new Maker)->make(Planning::plan($reading, $wish($format)), 'kept');
        expect(Signal::packetsOf((string) $kept->path))->toBe(hash('xxh128', str_repeat($frame, 40)));
    }
});

it('offers MP4 and QuickTime only what they carry', function () {
    expect(SoundEntry::carries(new AudioFormat(Codec::Vorbis, 48000, Layout::stereo(), null, 'x'), false))->toBeFalse()
        ->and(SoundEntry::carries(new AudioFormat(Codec::Opus, 48000, VorbisLayout::layout(2), null, 'x'), true))->toBeFalse();
});

it('keeps gaps in time stamps open, remade or kept, and refuses where a kept copy would close them', function (string $container) {
    $sounds = [Signal::sweep(100_000, 0.4, 0.0000015), Signal::sweep(100_000, 0.3, 0.000001)];
    [$encoder, $packets] = Signal::encode(new AudioFormat(Codec::Aac, 48000, Layout::stereo()), RateControl::exactly(192), $sounds);
    $total = 1024 * count($packets);
    $broken = array_values(array_filter($packets, fn (Packet $packet): bool => $packet->start < 40 * 1024 || $packet->start >= 60 * 1024));
    $path = Scratch::write('gap.'.$container, Video::of($container, $encoder->audio(), $broken, 0, $total));
    $wish = fn (string $format): OutputSpec => Spec::sound(Outputs::named($format), RateControl::none(), Scratch::folder());
    $kept = (new Maker)->make(Planning::plan(Reader::read($path), $wish('aac')), 'kept');
    foreach ([Signal::decodeFile($path), Signal::decodeFile((string) $kept->path)] as $decoded) {
        expect(count($decoded[0]))->toBe($total)
            ->and(max(array_map(abs(...), array_slice($decoded[0], 42 * 1024, 17 * 1024))))->toBeLessThan(0.001)
            ->and(Signal::difference(array_slice($sounds[0], 2000, 35_000), array_slice($decoded[0], 3600, 35_000)))->toBeLessThan(-25.0)
            ->and(Signal::difference(array_slice($sounds[0], 64 * 1024, 30_000), array_slice($decoded[0], 64 * 1024 + 1600, 30_000)))
            ->toBeLessThan(-25.0);
    }
    expect($kept->plan->sounds[0]->action->value)->toBe('kept')
        ->and(fn () => (new Maker)->make(Planning::plan(Reader::read($path), $wish('adts')), 'refused'))
        ->toThrow(Octavox\Core\Make\GapInSound::class, 'a gap of 0.43 s');
})->with(['mkv', 'ts']);

it('keeps all 32 bits of whole numbers through every container that has them', function () {
    mt_srand(7);
    $data = '';
    for ($index = 0; $index < 4_000; $index++) {
        $data .= pack('V', mt_rand(0, 0xFFFFFFFF));
    }
    $path = Scratch::write('wide.wav', 'RIFF'.pack('V', 36 + strlen($data)).'WAVEfmt '.pack('VvvVVvv', 16, 1, 2, 48000, 384_000, 8,
        32).'data'.pack('V', strlen($data)).$data);
    foreach (['aiff', 'caf', 'au', 'wav', 'raw'] as $format) {
        $stated = str_ends_with($path, '.raw') ? Octavox\Core\Container\Raw\HeaderlessFormat::parse('pcm32:48000:2') : null;
        $path = (string) (new Maker)
            ->make(Planning::plan(Reader::read($path, $stated),
                Spec::sound(Outputs::named($format), RateControl::none(), Scratch::folder())), 'wide')->path;
    }
    expect((string) file_get_contents($path) === $data)->toBeTrue();
});
