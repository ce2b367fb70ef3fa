<?php

declare(strict_types=1);

use Octavox\Core\Bytes\FileSink;
use Octavox\Core\Codec\Codecs;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Make\Maker;
use Octavox\Core\Make\MakerProcess;
use Octavox\Core\Make\Pipeline\Filters;
use Octavox\Core\Make\Pipeline\ParallelTail;
use Octavox\Core\Make\Pipeline\SoundInput;
use Octavox\Core\Make\Pipeline\TailMaker;
use Octavox\Core\Make\Workplace;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\NoProgress;
use Octavox\Core\Media\Packet;
use Octavox\Core\Media\Phase;
use Octavox\Core\Media\Progress;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Order\SoundSpec;
use Octavox\Core\Parallel\Processors;
use Octavox\Core\Plan\Plan;
use Octavox\Core\Reading\Opener;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\BlockSplitter;
use Octavox\Core\Sound\Dither;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Testing\Planning;
use Octavox\Core\Testing\Spec;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;

/** Seventy seconds at a low rate: long enough that a second process makes the later part. */
function longSource(string $format = 'wav'): string
{
    static $made = [];
    if (! isset($made[$format])) {
        $wave = Scratch::write('long.wav',
            Signal::wave([Signal::sweep(70 * 8000, 0.4, 0.0000004), Signal::steps(70 * 8000, 3)], SampleFormat::signed(24), 8000));
        $made[$format] = $format === 'wav' ? $wave : (string) (new Maker)->make(longPlan($wave, $format), 'source')->path;
    }

    return $made[$format];
}

function longPlan(string $source, string $format, ?SoundSpec $shaping = null, ?int $bits = null): Plan
{
    return Planning::plan(Reader::read($source),
        Spec::sound(Outputs::named($format), RateControl::none(), Scratch::folder(), bits: $bits, shaping: $shaping ?? Spec::shaping()));
}

/** The same plan carried out where a process may use one processor only. */
function madeByOne(Plan $plan): string
{
    $named = $plan->named('one-'.$plan->name());
    $process = proc_open(['taskset', '-c', '0', PHP_BINARY, '-d', 'ffi.enable=1', dirname(__DIR__).'/bin/maker.php',
        bin2hex(random_bytes(4))], [['pipe', 'r'], ['pipe', 'w'], ['file', '/dev/null', 'w']], $pipes);
    fwrite($pipes[0], json_encode(['plan' => $named->toArray()], JSON_PRESERVE_ZERO_FRACTION));
    fclose($pipes[0]);
    stream_get_contents($pipes[1]);
    expect(proc_close($process))->toBe(0);

    return (string) file_get_contents($named->path());
}

it('makes of a long sound in two processes what one makes, byte for byte',
    function (string $from, string $to, ?int $bits, ?SoundSpec $shaping) {
        $plan = longPlan(longSource($from), $to, $shaping, $bits);
        $made = (new Maker)->make($plan, bin2hex(random_bytes(4)));
        expect(md5((string) file_get_contents((string) $made->path)))->toBe(md5(madeByOne($plan)))
            ->and(glob(dirname((string) $made->path).'/.octavox-*'))->toBe([]);
    })->with([
        'PCM into FLAC' => ['wav', 'flac', null, null],
        'PCM into FLAC of 16 bits, with dither' => ['wav', 'flac', 16, null],
        'one side of PCM into FLAC' => ['wav', 'flac', null, Spec::shaping('left')],
        'a louder piece into FLAC' => ['wav', 'flac', null, Spec::shaping(pieces: '1-69.5', level: 'peak:-3')],
        'FLAC into WAV' => ['flac', 'wav', null, null],
        'FLAC into WAV of 16 bits, with dither' => ['flac', 'wav', 16, null],
        'FLAC into AIFF' => ['flac', 'aiff', null, null],
        'Opus into WAV' => ['opus', 'wav', null, null],
        'Vorbis into CAF' => ['vorbis', 'caf', null, null],
        'MP3 into WAV' => ['mp3', 'wav', null, null],
        'AAC into WAV' => ['aac', 'wav', null, null],
        'AAC into FLAC' => ['aac', 'flac', null, null],
        'fades are made by one' => ['wav', 'flac', null, Spec::shaping(fadeIn: '2', fadeOut: '2')],
    ]);

it('joins what two FLAC encoders made to what one would have made', function (int $bits) {
    $audio = new AudioFormat(Codec::Flac, 48_000, Layout::stereo(), null, '', 0, '', $bits);
    $sound = [Signal::steps(30_000, 1), Signal::steps(30_000, 2)];
    $encode = fn (Octavox\Core\Codec\Encoder $encoder, int $from,
        int $count): array => [...$encoder->encode(Block::fromChannels([array_slice($sound[0], $from, $count), array_slice($sound[1],
            $from, $count)])),
            ...$encoder->finish()];
    $one = Codecs::encoder($audio, RateControl::none());
    $whole = $encode($one, 0, 30_000);
    $joining = Codecs::splicer($audio);
    $seam = 4 * $joining->step();
    [$first, $second] = [$joining->encoder(), $joining->encoder()];
    $joining->hear(Block::fromChannels($sound));
    $packets = [...$encode($first, 0, $seam),
        ...array_map(fn (Packet $packet): Packet => $joining->packet($packet, $seam), $encode($second, $seam, 30_000 - $seam))];
    expect(array_map(fn (Packet $packet): array => [bin2hex($packet->data), $packet->start, $packet->length], $packets))
        ->toBe(array_map(fn (Packet $packet): array => [bin2hex($packet->data), $packet->start, $packet->length], $whole))
        ->and(bin2hex($joining->audio($first->audio(), $joining->later($second->audio()), 30_000)->config))
        ->toBe(bin2hex($one->audio()->config));
})->with([16, 24]);

it('makes it all alone where the later part cannot be had', function (string $from, string $to) {
    $plan = longPlan(longSource($from), $to);
    $folder = Scratch::folder();
    $plan = $plan->withTarget($plan->target->into($folder));
    // The place of the other process is taken: it dies at once.
    file_put_contents((new Workplace($folder))->beside('taken'), 'in the way');
    $made = (new Maker)->make($plan, 'taken');
    expect(md5((string) file_get_contents((string) $made->path)))->toBe(md5(madeByOne($plan)));
})->with([['wav', 'flac']]);

it('makes it all alone where the other process dies, whatever that has written by then', function (string $from, string $to) {
    $plan = longPlan(longSource($from), $to);
    $plan = $plan->withTarget($plan->target->into(Scratch::folder()));
    $killer = new class implements Progress
    {
        public int $signs = 0;

        public function reached(Phase $phase, int $done, int $of): void
        {
            if (++$this->signs === 20) {
                exec('pkill -KILL -P '.getmypid());
            }
        }
    };
    $made = (new Maker($killer))->make($plan, 'alone');
    expect(md5((string) file_get_contents((string) $made->path)))->toBe(md5(madeByOne($plan)))->and($killer->signs)->toBeGreaterThan(20)
        ->and($made->receipt->checksum)->toBe(hash_file('xxh128', (string) $made->path));
})->with([['wav', 'flac'], ['flac', 'wav'], ['mp3', 'aiff']]);

it('decodes the later part while it is made, from its own begin', function () {
    // Long enough for a third process.
    $wave = Scratch::write('longer.wav', Signal::wave([Signal::sweep(110 * 8000, 0.4, 0.0000004)], SampleFormat::signed(16), 8000));
    $plan = longPlan($wave, 'flac');
    $splicer = Codecs::splicer($plan->sounds[0]->audio);
    $begins = $splicer->step() * 20;
    $made = (new TailMaker(SoundInput::of(Opener::open($wave), $plan->sounds[0]), $splicer, $begins, 8000, 1.0))
        ->make(Scratch::path('tail'), null);
    expect($made['digest']['frames'])->toBe(110 * 8000 - $begins)->and($made['digest']['packets'])->toBe($made['packets'])
        ->and($made['digest']['hash'])->toBe($made['samples']);
})->skip(Processors::count() < 2, 'One processor makes everything itself.');

it('takes a later part only where it goes on from what was before', function () {
    $plan = longPlan(longSource('mp3'), 'wav');
    $opened = Opener::open($plan->source->path);
    $input = SoundInput::of($opened, $plan->sounds[0]);
    $file = FileSink::create(Scratch::folder().'/result');
    $later = ParallelTail::start($input, Codecs::splicer($plan->sounds[0]->audio), 1.0, $plan->target, $file->path, 44);
    if (Processors::count() < 2) {
        expect($later)->toBeNull();

        return;
    }
    $hash = hash_init('xxh128');
    $done = 0;
    foreach (BlockSplitter::at((new Filters($input))->blocks(), [$later->begins - $later->lead, $later->begins]) as $block) {
        if ($done >= $later->begins - $later->lead && $done < $later->begins) {
            hash_update($hash, $block->bytes());
        }
        $done += $block->frames;
    }
    $right = hash_final($hash);
    expect($later->follows(strrev($right), new NoProgress))->toBeFalse()->and($later->follows($right, new NoProgress))->toBeTrue()
        ->and($later->frames())->toBe($plan->sounds[0]->samples - $later->begins)
        ->and($later->stretch()->offset)->toBe(44 + $later->begins * $plan->sounds[0]->audio->frameBytes())->and($later->stretch()->length)
        ->toBe($later->frames() * $plan->sounds[0]->audio->frameBytes())
        ->and($later->hash())->toBe(hash('xxh128', $later->stretch()->bytes()));
});

it('leaves nothing behind when a long making is cancelled', function () {
    $second = str_repeat(pack('v*', ...array_map(fn (float $value): int => (int) ($value * 20_000) & 0xFFFF, Signal::steps(9600, 5))), 5);
    $wave = Scratch::write('hour.wav', 'RIFF'.pack('V', 36 + 600 * strlen($second)).'WAVEfmt '.pack('VvvVVvv', 16, 1, 1, 48_000, 96_000, 2,
        16).'data'.pack('V', 600 * strlen($second)).str_repeat($second, 600));
    $plan = longPlan($wave, 'flac');
    $child = MakerProcess::start($plan);
    while ($child->done() === 0 && $child->listen()) {
        $child->wait(0.2);
    }
    $child->cancel();
    expect(array_diff((array) scandir($plan->target->folder), ['.', '..']))->toBe([]);
});

it('gives a sample the same dither, whoever makes which stretch', function () {
    $silence = fn (int $count): Block => new Block(new FloatBuffer(2 * $count), $count, 2);
    $noise = function (Dither $dither, array $counts) use ($silence): array {
        $bytes = '';
        foreach ($counts as $count) {
            foreach ($dither->take($silence($count)) as $block) {
                $bytes .= $block->bytes();
            }
        }

        return array_values(unpack('f*', $bytes));
    };
    $whole = $noise(new Dither(16), [100_000]);
    expect($noise(new Dither(16), [1, 32_767, 10, 40_000, 27_222]) === $whole)->toBeTrue()
        ->and($noise(new Dither(16, 2 * 50_000), [50_000]) === array_slice($whole, 100_000))->toBeTrue()
        ->and($noise(new Dither(16, 2 * 32_768), [67_232]) === array_slice($whole, 65_536))->toBeTrue()
        ->and(max($whole))->toBeGreaterThan(0.9 / 32768)->and(max($whole))->toBeLessThan(1.0 / 32768);
});
