<?php

declare(strict_types=1);

use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Make\Maker;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Packet;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Tag\Chapter;
use Octavox\Core\Tag\TagField;
use Octavox\Core\Tag\Tags;
use Octavox\Core\Testing\Planning;
use Octavox\Core\Testing\Spec;
use Octavox\Core\Tests\Support\Asf;
use Octavox\Core\Tests\Support\ChoirDisc;
use Octavox\Core\Tests\Support\ForeignEncoders;
use Octavox\Core\Tests\Support\Pictured;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;
use Octavox\Core\Tests\Support\Video;

/** How often each sample is damaged. */
const DAMAGES2 = 150;

/** One small file of a format. */
function sample(string $name): string
{
    $sounds = [Signal::sweep(12_000, 0.4, 0.00001), Signal::sweep(12_000, 0.3, 0.00002)];
    if (Outputs::named($name) !== null) {
        $mono = Outputs::named($name)->capabilities()->mostChannels === 1;
        $wave = Scratch::write('s.wav', Signal::wave($mono ? [$sounds[0]] : $sounds, SampleFormat::signed(16), $mono ? 8000 : 48000,
            Tags::none()->with(TagField::Title, 'Lift')->withChapters([new Chapter(0.0, 'One'), new Chapter(0.1, 'Two')])));

        return (string) (new Maker)
            ->make(Planning::plan(Reader::read($wave),
                Spec::sound(Outputs::named($name), RateControl::none(), Scratch::folder())), 'sample')->path;
    }
    if ($name === 'disc') {
        return Scratch::write('disc.iso', ChoirDisc::small());
    }
    if ($name === 'disc udf') {
        return ChoirDisc::smallUdf();
    }
    if ($name === 'free') {
        return Scratch::write('free.mp3', ForeignEncoders::freeMp3($sounds[0], 200));
    }
    [$container, $codec] = explode(' ', $name);
    $pictures = array_map(fn (int $index): string => str_repeat(chr(40 + $index), 300), range(0, 19));
    $foreign = match ($name) {
        'asf pictures' => Pictured::windowsMedia($pictures),
        'avi pictures' => Pictured::avi($pictures),
        'ts hevc' => Pictured::hevc(15)[0],
        'mkv wavpack' => Pictured::wavPack($sounds, Layout::stereo()),
        default => null,
    };
    if ($foreign !== null) {
        return Scratch::write("foreign.$container", $foreign);
    }
    $audio = match ($codec) {
        'aac' => new AudioFormat(Codec::Aac, 48000, Layout::stereo()),
        'mp3' => new AudioFormat(Codec::Mp3, 48000, Layout::stereo(), null, '', 1152),
        'mp2' => new AudioFormat(Codec::Mp2, 48000, Layout::stereo(), null, '', 1152),
        'opus' => new AudioFormat(Codec::Opus, 48000, Layout::stereo()),
        'vorbis' => new AudioFormat(Codec::Vorbis, 48000, Layout::stereo()),
        'flac' => new AudioFormat(Codec::Flac, 48000, Layout::stereo(), null, '', 0, '', 16),
        default => AudioFormat::pcm(SampleFormat::signed(16, $container === 'm2ts'), 48000, Layout::stereo()),
    };
    [$encoder, $packets] = Signal::encode($audio, RateControl::exactly(160), $sounds);

    if ($container === 'asf') {
        $objects = array_map(fn (Packet $packet): array => [intdiv($packet->start, 48), $packet->data], $packets);

        return Scratch::write('video.asf',
            Asf::file($codec === 'pcm' ? Asf::format(1, 2, 48000, 192000, 4, 16)
            : Asf::format(0x55, 2, 48000, 20000, 1, 0), $objects, 2000));
    }

    return Scratch::write('video.'.$container, Video::of($container, $encoder->audio(), $packets, 0, 12_000));
}

require_once __DIR__.'/fixtures/damage.php';

/** Names of all samples. */
const SAMPLES = [
    'wav', 'float', 'aiff', 'caf', 'au', 'flac', 'alac', 'wavpack', 'mp3', 'aac', 'adts', 'opus', 'vorbis', 'mp2', 'ulaw',
    'ima', 'msadpcm', 'gsm',
    'mp4 aac', 'mp4 opus', 'mov pcm', 'mkv aac', 'mkv vorbis', 'mkv flac', 'webm opus', 'ts aac', 'm2ts pcm', 'ts204 mp2', 'mpg mp2',
    'avi mp3', 'avi pcm', 'flv aac', 'flv mp3',
    'asf pcm', 'asf mp3', 'free', 'asf pictures', 'avi pictures', 'ts hevc', 'mkv wavpack', 'disc', 'disc udf',
];

it('gives sound or one sentence for every damaged file, never a warning, a hang or more memory than there is', function (string $name) {
    $path = sample($name);
    $first = 1;
    $died = 0;
    $came = ['sound' => 0, 'failure' => 0];
    while ($first <= DAMAGES) {
        $output = [];
        exec(sprintf('timeout -s KILL 120 %s -d ffi.enable=1 -d memory_limit=256M -d opcache.enable_cli=1 %s %s %d %d 2>&1',
            escapeshellarg(PHP_BINARY), escapeshellarg(__DIR__.'/fixtures/mutate.php'), escapeshellarg($path), $first, DAMAGES),
            $output, $status);
        foreach ($output as $line) {
            if (preg_match('/^(\d+) (.*)$/', $line, $match) === 1) {
                expect($match[2])->not->toStartWith('fault', "$name, damage $match[1]: $match[2]");
                $came[$match[2]] = ($came[$match[2]] ?? 0) + 1;
                $first = (int) $match[1] + 1;
            } elseif (preg_match('/^peak (\d+)$/', $line, $match) === 1) {
                expect((int) $match[1])->toBeLessThan(256 << 20);
            }
        }
        if ($status !== 0) {
            // A codec library that dies takes its child process with it and nothing else; it must be rare.
            expect($status)->toBeGreaterThanOrEqual(128, "$name, damage $first: ".implode(' ', array_slice($output, -3)));
            $died++;
            $first++;
        }
    }
    expect($died)->toBeLessThanOrEqual(2, $name)
        ->and($came['failure'] + $came['sound'])->toBeGreaterThan(DAMAGES - 5);
})->with(SAMPLES);

/** How many damaged files lie beside a good one. */
const BESIDE = 40;

it('makes and plans the good file beside damaged ones, always, and nothing takes it by surprise', function (string $name) {
    $path = sample($name);
    $whole = (string) file_get_contents($path);
    $folder = Scratch::folder();
    $paths = [];
    $seed = crc32($name.'3') % 1_000_000;
    for ($number = 0; $number < BESIDE; $number++) {
        $paths[] = "$folder/$number.".pathinfo($path, PATHINFO_EXTENSION);
        file_put_contents($paths[$number], mutant($whole, $seed + $number));
    }
    $good = Scratch::write('good.wav', Signal::wave([Signal::sweep(4800, 0.4, 0.00001)], SampleFormat::signed(16)));
    array_splice($paths, 4, 0, [$good]);
    foreach ([['--format', 'wavpack', '--plan'], ['--format', 'mp3', '--level', 'lufs:-16'], ['--format', 'flac']] as $options) {
        $command = ['timeout', '-s', 'KILL', '120', dirname(__DIR__, 2).'/octavox', 'make', ...$paths, '--into', "$folder/out", '--json', ...$options];
        $said = json_decode((string) shell_exec(implode(' ', array_map(escapeshellarg(...), $command)).' 2>/dev/null'), true);
        $results = array_column($said['results'] ?? [], null, 'source');
        expect($results[$good]['state'] ?? 'nothing')->toBe(in_array('--plan', $options, true) ? 'planned' : 'done', "$name, seed $seed: ".implode(' ', $options));
        foreach ($said['results'] as $result) {
            expect($result['error']['code'] ?? '')->not->toBe('internal', "$name, seed $seed: $result[source] ".($result['error']['message'] ?? ''));
        }
    }
})->with(SAMPLES)->group('slow');
