<?php

declare(strict_types=1);

use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\BrokenStructure;
use Octavox\Core\Container\EmptyFile;
use Octavox\Core\Container\IndexMissing;
use Octavox\Core\Container\NoTracks;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Container\UnknownFormat;
use Octavox\Core\Container\Video\VideoOutputs;
use Octavox\Core\Failure;
use Octavox\Core\Make\Maker;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Plan\CannotPlan;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Testing\Planning;
use Octavox\Core\Testing\Spec;
use Octavox\Core\Tests\Support\Pictured;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;

/** Reads, plans and makes with every PHP warning an exception; gives the failure's sentence, or null where all went well. */
function attempt(string $path, bool $make = true): ?string
{
    set_error_handler(function (int $level, string $message): bool {
        if ((error_reporting() & $level) === 0) {
            return true;
        }
        throw new ErrorException($message);
    });
    $folder = Scratch::folder();
    try {
        $plan = Planning::plan(Reader::read($path), Spec::sound(Outputs::named('wav'), RateControl::none(), $folder));
        if ($make) {
            (new Maker)->make($plan, 'x');
        }

        return null;
    } catch (Failure $failure) {
        expect(array_diff(scandir($folder), ['.', '..']))->toBe([]);

        return $failure->getMessage();
    } finally {
        restore_error_handler();
    }
}

/** @return array<string, string> one small file of each kind */
function samples(): array
{
    static $samples = null;
    $sound = [Signal::sweep(6000), Signal::sweep(6000)];

    return $samples ??= [
        'first.mp4' => Signal::movie([Signal::pictureTrack(4), Signal::aacTrack($sound)]),
        'last.m4a' => Signal::movie([Signal::aacTrack($sound)], false, 'M4A '),
        'sound.mov' => Signal::movie([Signal::pictureTrack(4), Signal::pcmTrack($sound, SampleFormat::signed(16))], brand: 'qt  '),
        'fragments.mp4' => (string) file_get_contents(__DIR__.'/fixtures/other-fragmented.mp4'),
        'recorder.mp4' => (string) file_get_contents(__DIR__.'/fixtures/recorder.mp4'),
        'sound.wav' => Signal::wave($sound, SampleFormat::signed(24)),
        'sound.mp3' => Signal::mp3($sound, RateControl::exactly(128)),
    ];
}

it('says in one sentence what is wrong', function (Closure $file, string $type, string $says) {
    expect(fn () => Reader::read($file()))->toThrow($type, $says);
})->with([
    'empty' => [fn () => Scratch::write('empty.mp4', ''), EmptyFile::class, 'is empty'],
    'text' => [fn () => Scratch::write('notes.mp4', "Dear diary,\ntoday the lift opened.\n"), UnknownFormat::class, 'This is text'],
    'one byte' => [fn () => Scratch::write('one.mp4', "\x80"), UnknownFormat::class, 'no format'],
    'noise' => [fn () => Scratch::write('noise.mov', str_repeat(hash('sha256', 'x', true), 4000)), UnknownFormat::class, 'no format'],
    'two gigabytes of zeros' => [fn () => Scratch::sparse('zeros.mp4', 2 << 30, []), UnknownFormat::class, 'nothing but zeros'],
    'no index' => [fn () => Scratch::write('x.mp4', Signal::box('ftyp', 'isom').Signal::box('mdat', str_repeat('x', 999))),
        IndexMissing::class, 'never finished'],
    'no index, data to the end' => [fn () => Scratch::sparse('x.mp4', 3 << 30, [0 => Signal::box('ftyp', 'isom').pack('N', 0).'mdat']),
        IndexMissing::class, 'never finished'],
    'no tracks' => [fn () => Scratch::write('x.mp4',
        Signal::box('ftyp', 'isom').Signal::box('moov', Signal::box('mvhd', str_repeat("\0", 100)))), NoTracks::class, 'no tracks'],
    'a WAV that is only its name' => [fn () => Scratch::write('x.wav', 'RIFF'.pack('V', 4).'WAVE'), IndexMissing::class, 'never finished'],
    'a WAV of 999 channels' => [fn () => Scratch::write('x.wav', 'RIFF'.pack('V', 4).'WAVEfmt '.pack('VvvVVvv', 16, 1, 999, 48000, 0, 2,
        16)),
        BrokenStructure::class, '999 channels'],
]);

it('refuses to make what cannot be made, and says why', function (Closure $file, string $says) {
    expect(attempt($file()))->toContain($says);
})->with([
    'a video without sound' => [fn () => Scratch::write('x.mp4', Signal::movie([Signal::pictureTrack(4)])), 'no sound track'],
    'a codec nobody knows' => [fn () => Scratch::write('x.mp4', str_replace('mp4a', 'zzzz', samples()['first.mp4'])), '“zzzz”'],
    'a codec nobody here decodes' => [fn () => Scratch::write('x.mp4', str_replace('mp4a', 'ec-3', str_replace('esds', 'xxxx',
        samples()['first.mp4']))), 'E-AC-3'],
    'a track without samples' => [fn () => Scratch::write('x.wav',
        'RIFF'.pack('V', 36).'WAVEfmt '.pack('VvvVVvv', 16, 1, 1, 48000, 96000, 2, 16).'data'.pack('V', 0)), 'no sound at all'],
    'an unknown form in WAV' => [fn () => Scratch::write('x.wav', 'RIFF'.pack('V', 44).'WAVEfmt '.pack('VvvVVvv', 16, 0x161, 2, 48000, 0,
        2, 16).'data'.pack('V',
            8).'12345678'), 'Windows Media Audio 2'],
]);

it('reads or refuses every file that was cut anywhere', function (string $name) {
    $bytes = samples()[$name];
    $refused = 0;
    $made = 0;
    $before = memory_get_usage();
    for ($length = 0; $length < strlen($bytes); $length += $length < 1500 ? 1 : 97) {
        $says = attempt(Scratch::path('cut-'.$name) === '' ? '' : (function () use ($name, $bytes, $length): string {
            file_put_contents($path = Scratch::path('cut-'.$name), substr($bytes, 0, $length));

            return $path;
        })(), $length % 25 === 0);
        $says === null ? $made++ : $refused++;
        expect($says === null || preg_match('/^[“A-Z].*[.]$/su', $says) === 1)->toBeTrue("at $length: ".($says ?? ''));
    }
    expect($refused)->toBeGreaterThan(8)->and(memory_get_usage() - $before)->toBeLessThan(64 << 20);
})->with(['first.mp4', 'last.m4a', 'sound.mov', 'fragments.mp4', 'recorder.mp4', 'sound.wav', 'sound.mp3']);

it('survives lengths and counts that lie', function (string $name) {
    $bytes = samples()[$name];
    mt_srand(1994);
    for ($round = 0; $round < 250; $round++) {
        $damaged = $bytes;
        for ($changes = mt_rand(1, 3); $changes > 0; $changes--) {
            $at = mt_rand(0, min(strlen($bytes) - 5, mt_rand(0, 1) === 0 ? 1600 : strlen($bytes) - 5));
            $damaged = substr_replace($damaged, match (mt_rand(0, 3)) {
                0 => "\xFF\xFF\xFF\xFF",
                1 => pack('N', mt_rand(0, 1 << 30)),
                2 => "\0\0\0\0",
                default => chr(mt_rand(0, 255)),
            }, $at, mt_rand(0, 9) === 0 ? 1 : 4);
        }
        file_put_contents($path = Scratch::path('lies-'.$name), $damaged);
        attempt($path, $round % 4 === 0);
    }
    expect(memory_get_peak_usage())->toBeLessThan(512 << 20);
})->with(['first.mp4', 'last.m4a', 'sound.mov', 'fragments.mp4', 'recorder.mp4', 'sound.wav', 'sound.mp3']);

it('takes tables that announce more than there is, and boxes within boxes, without spending memory', function () {
    $bytes = samples()['first.mp4'];
    $lie = fn (string $type, int $skip, int $value): string => substr_replace($bytes, pack('N', $value), strrpos($bytes, $type) + $skip, 4);
    $deep = '';
    for ($depth = 0; $depth < 20_000; $depth++) {
        $deep = pack('N', 8 + strlen($deep)).'moov'.$deep;
    }
    $before = memory_get_usage();
    expect(attempt(Scratch::write('a.mp4', $lie('stsz', 12, 0xFFFFFFFF))))->toContain('too short for them')
        ->and(attempt(Scratch::write('a.mp4', $lie('stco', 8, 0x7FFFFFFF))))->toContain('too short for them')
        ->and(attempt(Scratch::write('a.mp4', $lie('stsz', 8, 0x01000000))))->toContain('ends before its sound does')
        ->and(attempt(Scratch::write('a.mp4', Signal::box('ftyp', 'isom').$deep)))->toContain('no tracks')
        ->and(memory_get_usage() - $before)->toBeLessThan(16 << 20);
});

it('refuses what would not fit on the drive before it begins', function () {
    $path = Scratch::sparse('huge.wav', (1 << 42) + 44,
        [0 => 'RF64'.pack('V', 0xFFFFFFFF).'WAVEds64'.pack('VPPPV', 28, (1 << 42) + 36, 1 << 42, 1 << 41, 0).'fmt '.pack('VvvVVvv', 16, 1,
            1, 48000, 96000, 2, 16).'data'.pack('V', 0xFFFFFFFF)]);
    expect(attempt($path))->toContain('MB free');
});

it('refuses a track number that is no sound track of the file', function () {
    $path = Scratch::write('first.mp4', samples()['first.mp4']);
    expect(fn () => Planning::plan(Reader::read($path), Spec::sound(Outputs::named('wav'), RateControl::none(), '/x', track: 1)))
        ->toThrow(CannotPlan::class, 'choose one of these: 2');
});

it('makes nothing of a track that is only late', function (string $video) {
    // Its sound begins a day after the picture and holds not one sample.
    $bytes = Pictured::avi(array_fill(0, 10, str_repeat('p', 300)));
    $at = strrpos($bytes, 'strh') + 8;
    $bytes = substr_replace($bytes, pack('V', 0xFFFFFF), $at + 28, 4);
    $bytes = str_replace('01wb', '01xx', $bytes);
    $reading = Reader::read(Scratch::write('late.avi', $bytes));
    expect($reading->sound()[0]->timeline->startOffset)->toBeGreaterThan(8_000_000)->and($reading->sound()[0]->timeline->coded)->toBe(0);
    $plan = fn (): mixed => $video === ''
        ? Planning::plan($reading, Spec::sound(Outputs::named('wav'), RateControl::none(), Scratch::folder()))
        : Planning::plan($reading, Spec::video(VideoOutputs::named($video), null, RateControl::none(), Scratch::folder()));
    expect($plan)->toThrow(CannotPlan::class, 'holds no sound at all');
})->with(['', 'mkv']);
