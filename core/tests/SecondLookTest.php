<?php

declare(strict_types=1);

use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\Containers;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Make\Comparison;
use Octavox\Core\Make\Maker;
use Octavox\Core\Make\Result;
use Octavox\Core\Make\WouldReplaceSource;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Name\Direction;
use Octavox\Core\Name\LegalName;
use Octavox\Core\Order\IfExists;
use Octavox\Core\Order\SoundSpec;
use Octavox\Core\Plan\CannotPlan;
use Octavox\Core\Plan\PlanWords;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Testing\Planning;
use Octavox\Core\Testing\Spec;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;
use Octavox\Core\Tests\Support\Video;

// What real files and hostile hands showed: each of these went wrong once.

/** Makes a file through plan and maker, as everything does. */
function looked(string $path, string $format, ?RateControl $rateControl = null, ?string $folder = null, ?SoundSpec $shaping = null,
    IfExists $existing = IfExists::Number, ?int $rate = null): Result
{
    return (new Maker)
        ->make(Planning::plan(Reader::read($path), Spec::sound(Outputs::named($format), $rateControl ?? RateControl::none(),
            $folder ?? Scratch::folder(), $rate, existing: $existing, shaping: $shaping ?? Spec::shaping())), bin2hex(random_bytes(4)));
}

/** @return array{int, mixed, string} exit status, what was said, standard error */
function said(string ...$words): array
{
    $process = proc_open([dirname(__DIR__, 2).'/octavox', ...$words], [['file', '/dev/null', 'r'], ['pipe', 'w'], ['pipe', 'w']], $pipes);
    $out = stream_get_contents($pipes[1]);
    $error = stream_get_contents($pipes[2]);

    return [proc_close($process), json_decode($out, true) ?? $out, $error];
}

it('never lets a result take the place of a source, by whatever name', function () {
    $folder = Scratch::folder();
    $source = "$folder/a.wav";
    file_put_contents($source, Signal::wave([Signal::steps(4000, 1)], SampleFormat::signed(16)));
    $sum = hash_file('sha256', $source);
    symlink($folder, Scratch::path('same-folder'));
    foreach ([$folder, Scratch::path('same-folder'), "$folder/../".basename($folder)] as $into) {
        [$status, $answer] = said('make', $source, '--into', $into, '--format', 'wav', '--bits', '8', '--exists', 'replace', '--json');
        expect($status)->toBe(1)->and($answer['results'][0]['error']['code'])->toBe('would-replace-source')
            ->and(hash_file('sha256', $source))->toBe($sum);
    }
    // The neighbour whose name the result would take is a source of the same run.
    file_put_contents("$folder/b.aiff", file_get_contents((string) looked($source, 'aiff')->path));
    file_put_contents("$folder/b.wav", Signal::wave([Signal::steps(3000, 2)], SampleFormat::signed(16)));
    $neighbour = hash_file('sha256', "$folder/b.wav");
    said('make', "$folder/b.aiff", "$folder/b.wav", '--into', $folder, '--format', 'wav', '--exists', 'replace');
    expect(hash_file('sha256', "$folder/b.wav"))->toBe($neighbour);
    // A link that leads nowhere is not followed.
    symlink("$folder/elsewhere.wav", "$folder/c.wav");
    file_put_contents("$folder/c.aiff", file_get_contents("$folder/b.aiff"));
    said('make', "$folder/c.aiff", '--into', $folder, '--format', 'wav', '--exists', 'replace');
    expect(file_exists("$folder/elsewhere.wav"))->toBeFalse();
    expect(fn () => looked($source, 'wav', folder: $folder, existing: IfExists::Replace))->toThrow(WouldReplaceSource::class);
});

it('keeps uncompressed sound beyond every block of its own, whatever its frames measure',
    function (int $bits, int $channels, string $format) {
        $pcm = SampleFormat::signed($bits);
        $frames = intdiv(4_300_000, $pcm->bytes() * $channels);
        $random = new Random\Randomizer(new Random\Engine\Mt19937(5));
        $data = $random->getBytes($frames * $pcm->bytes() * $channels);
        $empty = Signal::wave(array_fill(0, $channels, [0.0]), $pcm);
        $head = substr($empty, 0, strpos($empty, 'data') + 4);
        $source = Scratch::write('long.wav',
            substr_replace($head, pack('V', strlen($head) - 4 + strlen($data)), 4, 4).pack('V', strlen($data)).$data);
        $made = looked($source, $format);
        expect($made->receipt->samples)->toBe($frames)->and($made->plan->isKept())->toBeTrue()
            ->and(str_contains(file_get_contents((string) $made->path), $data))->toBeTrue();
    })->with([[24, 1], [24, 2], [16, 3], [24, 6], [32, 5]])->with(['wav', 'caf', 'raw']);

it('does not take quiet samples for frames of MPEG', function () {
    $random = new Random\Randomizer(new Random\Engine\Mt19937(11));
    $taken = 0;
    for ($one = 0; $one < 20; $one++) {
        $samples = array_map(fn (): int => $random->getInt(-3 - $one % 5, 3 + $one % 5), range(1, 6000));
        try {
            Containers::openFile(Scratch::write('quiet.bin',
                pack('v*', ...array_map(fn (int $sample): int => $sample & 0xFFFF, $samples))));
            $taken++;
        } catch (Octavox\Core\Failure) {
            continue;
        }
    }
    expect($taken)->toBe(0);
});

it('knows pure tones for what they are', function (string $format, int $period) {
    // 0x47 wherever a transport stream would have it
    $frames = 40_000;
    $sounds = [array_map(fn (int $index): float => $index % $period === 0 ? 0x4747 / 32768 : 0.1, range(0, $frames - 1))];
    $made = looked(Scratch::write('tone.wav', Signal::wave($sounds, SampleFormat::signed(16))), $format);
    expect(Reader::read((string) $made->path)->container)->toBe($format);
})->with(['wav', 'aiff', 'au'])->with([94, 96]);

it('reads all recordings that stand one behind the other', function (string $format) {
    $first = looked(Scratch::write('one.wav', Signal::wave([Signal::sweep(48_000)], SampleFormat::signed(16))), $format);
    $second = looked(Scratch::write('two.wav', Signal::wave([Signal::sweep(30_000, 0.2)], SampleFormat::signed(16))), $format);
    $joined = Scratch::write('joined.'.pathinfo((string) $first->path, PATHINFO_EXTENSION),
        file_get_contents((string) $first->path).file_get_contents((string) $second->path));
    $reading = Reader::read($joined);
    $samples = $reading->sound()[0]->timeline->samples();
    $named = array_filter($reading->findings, fn ($finding): bool => $finding->severity->value === 'warn');
    // All of it, or a warning: silence about it is what must not be.
    expect($samples >= $first->receipt->samples + $second->receipt->samples - 2500 || $named !== [])->toBeTrue();
})->with(['vorbis', 'opus', 'flac', 'wavpack', 'adts', 'mp3']);

it('begins time with the sound where there is no picture', function () {
    [$encoder, $packets] = Signal::encode(new AudioFormat(Codec::Aac, 48000, Layout::stereo()), RateControl::exactly(128),
        [Signal::sweep(48_000), Signal::sweep(48_000)]);
    $flv = Video::of('flv', $encoder->audio(), $packets, 0, 48_000, 48_000 * 20);
    // Without its picture
    $bytes = substr($flv, 0, 4)."\x04".substr($flv, 5, 8);
    for ($at = 13; $at + 11 < strlen($flv); $at += $length + 15) {
        $length = ord($flv[$at + 1]) << 16 | ord($flv[$at + 2]) << 8 | ord($flv[$at + 3]);
        if (ord($flv[$at]) === 8) {
            $bytes .= substr($flv, $at, $length + 15);
        }
    }
    $plan = Planning::plan(Reader::read(Scratch::write('live.flv', $bytes)),
        Spec::sound(Outputs::named('wav'), RateControl::none(), Scratch::folder()));
    expect($plan->sounds[0]->samples)->toBeLessThan(60_000);
});

it('encodes what was asked for or says what there is', function (string $format, RateControl $rateControl, ?int $rate, string $nearest) {
    $source = Scratch::write('in.wav', Signal::wave([Signal::sweep(24_000), Signal::sweep(24_000)], SampleFormat::signed(16)));
    expect(fn () => looked($source, $format, $rateControl, rate: $rate))->toThrow(function (CannotPlan $refused) use ($nearest): void {
        expect($refused->code())->toBe('not-offered')->and($refused->getMessage())->toContain($nearest)
            ->and(json_encode($refused->violation()->toArray()['nearest']))->toContain($nearest);
    });
})->with([
    ['mp3', RateControl::exactly(123), null, '128'],
    ['mp3', RateControl::none(), 47_000, '48'],
    ['mp2', RateControl::exactly(100), null, '96'],
]);

it('gives sound that was compressed what another codec needs for it, and warns whoever asks for more', function (string $from, string $to) {
    $wave = Scratch::write('in.wav', Signal::wave([Signal::sweep(96_000), Signal::sweep(96_000, 0.3)], SampleFormat::signed(16)));
    $source = (string) looked($wave, $from, RateControl::near(96))->path;
    $plan = Planning::plan(Reader::read($source), Spec::sound(Outputs::named($to), RateControl::none(), Scratch::folder()));
    expect($plan->sounds[0]->rateControl->kbps)->toBe(['mp3aac' => 96, 'opusaac' => 153, 'mp3mp2' => 192, 'opusmp2' => 224][$from.$to] ?? 0)->and($plan->warnings)->toBe([]);
    $asked = Planning::plan(Reader::read($source), Spec::sound(Outputs::named($to), RateControl::near(256), Scratch::folder()));
    expect(PlanWords::warnings($asked)[0])->toContain('no better');
})->with(['mp3', 'opus'])->with(['aac', 'mp2']);

it('draws and plans no more than packets can hold, whatever a page of Ogg says', function () {
    $vorbis = (string) looked(Scratch::write('in.wav', Signal::wave([Signal::sweep(96_000)], SampleFormat::signed(16))), 'vorbis')->path;
    $bytes = file_get_contents($vorbis);
    $last = strrpos($bytes, 'OggS');
    $bytes = substr_replace($bytes, pack('P', 1 << 62), $last + 6, 8);
    // The checksum of the page, RFC 3533, 6
    $page = substr_replace(substr($bytes, $last), "\0\0\0\0", 22, 4);
    $crc = 0;
    for ($at = 0; $at < strlen($page); $at++) {
        $crc ^= ord($page[$at]) << 24;
        for ($bit = 0; $bit < 8; $bit++) {
            $crc = ($crc & 0x80000000) !== 0 ? ($crc << 1 ^ 0x04C11DB7) & 0xFFFFFFFF : $crc << 1 & 0xFFFFFFFF;
        }
    }
    $bomb = Scratch::write('bomb.ogg', substr_replace($bytes, pack('V', $crc), $last + 22, 4));
    expect(Reader::read($bomb)->sound()[0]->timeline->samples())->toBeLessThan(200_000);
    $good = Scratch::write('good.wav', Signal::wave([Signal::steps(100, 1)], SampleFormat::signed(16)));
    [, $answer] = said('make', $bomb, $good, '--into', Scratch::folder(), '--format', 'wav', '--json');
    expect(array_column($answer['results'], 'state'))->toContain('done');
});

it('mends samples that are no numbers and tells figures that are', function () {
    $frames = 20_000;
    $samples = array_map(fn (int $at): float => match ($at % 997) {
        3 => NAN, 5 => INF, 7 => -INF, 9 => 1e38, default => 0.1 * sin($at * 0.05)
    }, range(0, $frames - 1));
    $data = pack('g*', ...$samples);
    $head = 'RIFF'.pack('V', 36 + strlen($data)).'WAVEfmt '.pack('VvvVVvv', 16, 3, 1, 48000, 192000, 4, 32).'data'.pack('V', strlen($data));
    $source = Scratch::write('none.wav', $head.$data);
    [$status, $answer, $error] = said('read', $source, '--listen', '--json');
    expect($status)->toBe(0)->and($error)->toBe('')->and($answer['sources'][0]['tracks'][0]['samples'])->toBe($frames);
    foreach (['wav', 'mp3', 'flac', 'opus'] as $format) {
        foreach (Signal::decodeFile((string) looked($source, $format, RateControl::none())->path) as $channel) {
            expect(array_filter($channel, fn (float $sample): bool => ! is_finite($sample)))->toBe([]);
        }
    }
});

it('says of damaged sound where it is and goes on', function (string $format) {
    $made = looked(Scratch::write('in.wav',
        Signal::wave([Signal::sweep(480_000), Signal::sweep(480_000)], SampleFormat::signed(16))), $format);
    $bytes = file_get_contents((string) $made->path);
    $middle = intdiv(strlen($bytes), 2);
    $result = looked(Scratch::write('damaged.'.pathinfo((string) $made->path, PATHINFO_EXTENSION),
        substr_replace($bytes, str_repeat("\x55", 900), $middle, 900)), 'wav');
    expect($result->receipt->samples)->toBeGreaterThan(470_000)->and(implode(' ', $result->receipt->notes))->toContain('damaged');
})->with(['flac', 'aac', 'wavpack']);

it('walks folders without end only once, and names what is no recording', function () {
    $folder = Scratch::folder();
    file_put_contents("$folder/a.wav", Signal::wave([Signal::steps(1000, 1)], SampleFormat::signed(16)));
    file_put_contents("$folder/notes.txt", 'Gate three, 14:10.');
    mkdir("$folder/deep");
    symlink($folder, "$folder/deep/round");
    [$status, $answer] = said('read', $folder, '--json');
    expect($status)->toBe(0)->and($answer['sources'])->toHaveCount(1)->and($answer['left_out'][0]['path'])->toEndWith('notes.txt');
    // What was made here before is no source.
    said('make', $folder, '--into', $folder, '--format', 'mp3');
    [$again, $second] = said('make', $folder, '--into', $folder, '--format', 'mp3', '--exists', 'skip', '--json');
    expect($again)->toBe(0)->and($second['results'])->toHaveCount(1)->and(array_column($second['left_out'], 'code'))
        ->toContain('own-result')
        ->and(glob("$folder/*.mp3"))->toHaveCount(1);
});

it('reads WAV whose numbers are turned round, sample for sample', function () {
    $frames = unpack('s*', pack('s*', ...array_map(fn (int $at): int => (int) (9000 * sin($at * 0.03)), range(0, 9_999))));
    $data = pack('n*', ...array_map(fn (int $sample): int => $sample & 0xFFFF, $frames));
    $source = Scratch::write('turned.wav', 'RIFX'.pack('N', 36 + strlen($data)).'WAVEfmt '.pack('NnnNNnn', 16, 1, 1, 48000, 96000, 2,
        16).'data'.pack('N', strlen($data)).$data);
    $made = looked($source, 'wav');
    expect(array_values(unpack('v*', substr(file_get_contents((string) $made->path), 44))))->toBe(array_values(unpack('n*', $data)));
});

it('finds the first whole frame of AAC that was cut out of a stream', function () {
    $bytes = file_get_contents(
        (string) looked(Scratch::write('in.wav', Signal::wave([Signal::sweep(96_000)], SampleFormat::signed(16))), 'adts')->path);
    $reading = Reader::read(Scratch::write('cut.aac', substr($bytes, 137)));
    expect($reading->container)->toBe('adts')->and($reading->sound()[0]->timeline->samples())->toBeGreaterThan(90_000)
        ->and(array_map(fn ($finding): string => $finding->code(), $reading->findings))->toContain('begins-in-frame');
});

it('tells a segment of a stream from a recording that was never finished', function () {
    $segment = Signal::box('styp', 'msdh'.pack('N', 0).'msdhmsix').Signal::box('moof',
        Signal::box('mfhd', pack('N2', 0, 1))).Signal::box('mdat', str_repeat("\0", 100));
    expect(fn () => Reader::read(Scratch::write('s.m4s', $segment)))->toThrow(Octavox\Core\Failure::class, 'one segment of a stream')
        ->and(fn () => Reader::read(Scratch::write('f.mp4',
            Signal::box('ftyp', 'mp42'.pack('N', 0)).Signal::box('mdat', str_repeat("\0", 100)))))
        ->toThrow(Octavox\Core\Failure::class, 'never finished');
});

it('finds sound in step with its picture, though it begins later in its file', function () {
    $video = Scratch::write('late.mp4',
        Signal::movie([Signal::pictureTrack(60), Signal::aacTrack([Signal::sweep(72_000)], lateTicks: 24_000)]));
    $made = looked($video, 'wav');
    $comparison = Comparison::of($video, (string) $made->path)->toArray();
    expect($comparison['in_step'])->toBeTrue()->and(abs($comparison['offset']))->toBeGreaterThan(20_000);
});

it('tells the level of the sound as it came in, before its channels were mixed', function (int $frames) {
    $source = Scratch::write('in.wav',
        Signal::wave([Signal::sine($frames, 500, 48000, 0.5), array_fill(0, $frames, 0.0)], SampleFormat::signed(16)));
    $receipt = looked($source, 'wav', shaping: Spec::shaping('mono'))->receipt->toArray();
    expect($receipt['peak_before'])->toEqualWithDelta(-6.02, 0.02)->and($receipt['peak_after'])->toEqualWithDelta(-12.04, 0.02);
})->with([24_000, 48_000 * 70]);

it('keeps the ending of long names and what turns no direction', function () {
    $name = LegalName::file(str_repeat('ü', 180).'.m4a');
    expect(strlen($name))->toBeLessThanOrEqual(200)->and($name)->toEndWith('.m4a')
        ->and(LegalName::shortened(str_repeat('a', 300).'.wav', 250))->toHaveLength(250)->toEndWith('.wav')
        ->and(LegalName::from("gate\u{202E}3pm.exe"))->toBe('gate3pm.exe')
        ->and(Direction::shown("gate\u{202E}3pm.exe"))->toBe('gate[U+202E]3pm.exe');
});

it('re-wraps a video without sound', function () {
    $video = Scratch::write('silent.mp4', Signal::movie([Signal::pictureTrack(50)]));
    [$status, $answer] = said('make', $video, '--into', Scratch::folder(), '--picture', 'keep', '--format', 'mkv', '--json');
    expect($status)->toBe(0)->and($answer['results'][0]['sound_tracks'])->toBe(0);
    $tracks = Reader::read($answer['results'][0]['path'])->tracks;
    expect($tracks)->toHaveCount(1)->and($tracks[0]->picture)->not->toBeNull();
});

it('is quiet when nobody reads what it says', function () {
    $folder = Scratch::folder();
    for ($one = 0; $one < 40; $one++) {
        file_put_contents("$folder/$one.wav", Signal::wave([Signal::steps(100, $one)], SampleFormat::signed(16)));
    }
    exec(sprintf('%s read %s 2>&1 >/dev/null | head -c 100; bash -c "%s read %s 2>%s/err | head -n 1" ; cat %s/err',
        escapeshellarg(dirname(__DIR__, 2).'/octavox'), escapeshellarg($folder), dirname(__DIR__, 2).'/octavox', $folder,
        $folder, $folder), $said);
    expect($said)->toHaveCount(1);
});

/**
 * A movie in fragments: its index without samples, then a fragment for each list of packets, with the time at which it says to begin.
 *
 * @param  string  $edits  entries of an edit list, ISO/IEC 14496-12, 8.6.6
 */
function fragmented(array $fragments, string $edits = ''): string
{
    [$encoder, $packets] = Signal::encode(new AudioFormat(Codec::Aac, 48000, Layout::mono()), RateControl::exactly(96),
        [Signal::sweep(48_000)]);
    $whole = Signal::movie([Octavox\Core\Testing\WriterTrack::sound($encoder->audio(), $packets, 0, 48_000)]);
    $at = (int) strpos($whole, 'stsd') - 4;
    $stsd = substr($whole, $at, unpack('N', substr($whole, $at, 4))[1]);
    $full = fn (string $type, string $body, int $flags = 0, int $version = 0): string => Signal::box($type,
        pack('N', $version << 24 | $flags).$body);
    $empty = $full('stts', pack('N', 0)).$full('stsc', pack('N', 0)).$full('stsz', pack('N2', 0, 0)).$full('stco', pack('N', 0));
    $media = Signal::box('mdia', $full('mdhd', pack('N4n2', 0, 0, 48000, 0, 0x55C4, 0)).$full('hdlr',
        pack('N', 0).'soun'.str_repeat("\0", 13)).Signal::box('minf', $full('smhd', pack('N', 0)).Signal::box('stbl', $stsd.$empty)));
    $bytes = Signal::box('ftyp', 'iso5'.pack('N', 0).'iso5').Signal::box('moov',
        $full('mvhd', pack('N4', 0, 0, 48000, 0).str_repeat("\0", 80)).Signal::box('trak',
            $full('tkhd', pack('N5', 0, 0, 1, 0, 0).str_repeat("\0", 60), 7)
                .($edits === '' ? '' : Signal::box('edts', $full('elst', pack('N', intdiv(strlen($edits),
                    12)).$edits))).$media).Signal::box('mvex',
                        $full('trex', pack('N5', 1, 1, 1024, 0, 0))));
    foreach ($fragments as [$time, $first, $count]) {
        $own = array_slice($packets, $first, $count);
        $sizes = pack('N*', ...array_map(fn ($packet): int => strlen($packet->data), $own));
        $moof = fn (int $offset): string => Signal::box('moof',
            $full('mfhd', pack('N', 1)).Signal::box('traf',
                $full('tfhd', pack('N', 1), 0x20000).$full('tfdt', pack('J', $time), 0, 1).$full('trun',
                    pack('N2', count($own), $offset).$sizes, 0x201)));
        $bytes .= $moof(strlen($moof(0)) + 8).Signal::box('mdat', implode('', array_map(fn ($packet): string => $packet->data, $own)));
    }

    return Scratch::write('fragments.mp4', $bytes);
}

it('begins fragments where the first of them begins, and keeps gaps between them open', function () {
    $live = Reader::read(fragmented([[48000 * 3600, 0, 20], [48000 * 3600 + 20 * 1024, 20, 20]]));
    expect(looked($live->path, 'wav')->receipt->samples)->toBe(40 * 1024);
    $gap = Reader::read(fragmented([[0, 0, 20], [20 * 1024 + 48_000, 20, 20]]));
    expect(looked($gap->path, 'wav')->receipt->samples)->toBe(40 * 1024 + 48_000);
});

it('counts the edits of a stream that begins late on its own clock', function () {
    // The first packet stands at an hour; the edit begins 5,000 samples behind it, and another one 1,000 before it.
    $live = fn (int $from): string => fragmented([[48000 * 3600, 0, 40]], pack('N3', 0, 48000 * 3600 + $from, 0x10000));
    expect(looked($live(5000), 'wav')->receipt->samples)->toBe(40 * 1024 - 5000)
        ->and(Reader::read($live(5000))->sound()[0]->timeline->segments[0]->from)->toBe(5000);
    $early = Reader::read($live(-1000))->sound()[0]->timeline;
    expect($early->startOffset)->toBe(1000)->and($early->segments[0]->from)->toBe(0)->and($early->samples())->toBe(40 * 1024);
});

it('trusts the info header of an MP3 no further than its frames', function (int $frames, string $mark) {
    $bytes = Signal::mp3([Signal::sweep(480_000)], RateControl::exactly(128));
    $there = Reader::read(Scratch::write('in.mp3', $bytes))->sound()[0]->timeline->samples();
    $at = (int) strpos($bytes, $mark);
    $changed = Scratch::write('changed.mp3', substr_replace($bytes, pack('N', $frames), $at + 8, 4));
    expect(abs(Reader::read($changed)->sound()[0]->timeline->samples() - $there))->toBeLessThan(2400);
    expect(looked($changed, 'mp3')->plan->isKept())->toBeTrue();
})->with([40, 1, 1_000_000, 418])->with(['Info']);

it('goes by what the frames of a stream say, not by what its entry says', function () {
    [$encoder, $packets] = Signal::encode(new AudioFormat(Codec::Mp3, 48000, Layout::mono(), null, '', 1152), RateControl::exactly(96),
        [Signal::sweep(96_000)]);
    $entry = new AudioFormat(Codec::Mp3, 48000, Layout::stereo(), null, '', 1152);
    $movie = Scratch::write('wrong.mp4', Video::of('mov', $entry, $packets, $encoder->delay(), 96_000));
    expect(Reader::read($movie)->sound()[0]->sound->layout->name())->toBe('mono')
        ->and(Signal::decodeFile((string) looked($movie, 'wav')->path))->toHaveCount(1);
});

it('gives of a file that was cut off what is there', function (string $format) {
    $made = looked(Scratch::write('in.wav',
        Signal::wave([Signal::sweep(480_000), Signal::sweep(480_000, 0.3)], SampleFormat::signed(16))), $format);
    $bytes = file_get_contents((string) $made->path);
    $cut = Scratch::write('cut.'.pathinfo((string) $made->path, PATHINFO_EXTENSION), substr($bytes, 0, intdiv(6 * strlen($bytes), 10)));
    $told = Reader::read($cut)->sound()[0]->timeline->samples();
    $result = looked($cut, 'wav');
    // Of Ogg whole pages count.
    expect($result->receipt->samples)->toBe($told)->toBeGreaterThan($format === 'vorbis' ? 100_000 : 200_000)->toBeLessThan(330_000);
})->with(['wav', 'aiff', 'au', 'flac', 'wavpack', 'mp3', 'mp2', 'adts', 'opus', 'vorbis']);

it('begins sound at once whose first block stands before the time of its cluster', function () {
    [$encoder, $packets] = Signal::encode(new AudioFormat(Codec::Mp3, 48000, Layout::mono(), null, '', 1152), RateControl::exactly(96),
        [Signal::sweep(96_000)]);
    $matroska = file_get_contents(Scratch::write('a.mka',
        file_get_contents((string) looked(Scratch::write('b.mp3',
            implode('', array_map(fn ($packet): string => $packet->data, $packets))), 'mka')->path)));
    // The first block, SimpleBlock of track 1 at 0: three milliseconds before its cluster
    $at = (int) strpos($matroska, "\x81\0\0\x80");
    expect($at)->toBeGreaterThan(0);
    $early = Scratch::write('early.mka', substr_replace($matroska, "\x81\xFF\xFD\x80", $at, 4));
    expect(abs(looked($early, 'wav')->receipt->samples - count($packets) * 1152))->toBeLessThan(400);
});

it('counts on where the times of a capture begin anew', function (string $container) {
    [$encoder, $packets] = Signal::encode(new AudioFormat(Codec::Aac, 48000, Layout::stereo()), RateControl::exactly(128),
        [Signal::sweep(240_000), Signal::sweep(240_000)]);
    $one = Video::of($container, $encoder->audio(), $packets, 0, 240_000);
    $single = Reader::read(Scratch::write("one.$container", $one))->sound()[0]->timeline->samples();
    $reading = Reader::read(Scratch::write("joined.$container", $one.$one));
    $made = looked($reading->path, 'wav');
    expect($made->receipt->samples)->toBeGreaterThan(2 * $single - 4096)->toBeLessThan(2 * $single + 48_000)
        ->and(array_filter($reading->findings, fn ($finding): bool => str_contains($finding->says(), 'restarts')))->not->toBe([]);
})->with(['ts', 'm2ts']);

it('gives a packet of Ogg that holds nothing no length', function () {
    $bytes = file_get_contents(
        (string) looked(Scratch::write('in.wav', Signal::wave([Signal::sweep(480_000)], SampleFormat::signed(16))), 'vorbis')->path);
    $there = Reader::read(Scratch::write('whole.ogg', $bytes))->sound()[0]->timeline->samples();
    $last = (int) strrpos($bytes, 'OggS');
    $before = (int) strrpos(substr($bytes, 0, $last), 'OggS');
    $empty = "OggS\0\0".substr($bytes, $before + 6, 12).pack('V2', 900, 0)."\x01\x00";
    $with = Scratch::write('empty.ogg', substr_replace($bytes, $empty, $last, 0));
    expect(Reader::read($with)->sound()[0]->timeline->samples())->toBe($there)
        ->and(looked($with, 'wav')->receipt->samples)->toBe($there);
});

it('leaves out what Opus needs to begin even where an edit list forgets it', function () {
    $into = Scratch::folder();
    $movie = Scratch::write('v.mp4', Signal::movie([Signal::pictureTrack(50), Signal::aacTrack([Signal::sweep(96_000)])]));
    [$status, $said] = octavox('make', $movie, '--into', $into, '--format', 'mp4', '--sound', 'opus', '--json');
    $path = $said['results'][0]['path'];
    $bytes = (string) file_get_contents($path);
    $skip = Reader::read($path)->sound()[0]->timeline->segments[0]->from;
    $forgotten = str_replace(pack('Nn2', $skip, 1, 0), pack('Nn2', 0, 1, 0), $bytes, $times);
    expect($status)->toBe(0)->and($skip)->toBeGreaterThan(0)->and($times)->toBe(1)
        ->and(Reader::read(Scratch::write('forgotten.mp4', $forgotten))->sound()[0]->timeline->segments[0]->from)->toBe($skip);
});
