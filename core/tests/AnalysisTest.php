<?php

declare(strict_types=1);

use Octavox\Core\Analysis\AnalysisFindings;
use Octavox\Core\Analysis\Analyzer;
use Octavox\Core\Analysis\Measurements;
use Octavox\Core\Analysis\Waveform;
use Octavox\Core\Analysis\WaveformLayout;
use Octavox\Core\Bytes\FileBytes;
use Octavox\Core\Bytes\FileSink;
use Octavox\Core\Bytes\MemoryBytes;
use Octavox\Core\Bytes\MemorySink;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Media\Timeline;
use Octavox\Core\Media\Track;
use Octavox\Core\Reading\Finding;
use Octavox\Core\Reading\Opener;
use Octavox\Core\Sound\Biquad;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\BlockFilter;
use Octavox\Core\Sound\Channel;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Tests\Support\Clips;
use Octavox\Core\Tests\Support\LoudnessLibrary;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;

/**
 * A sine of 1 kHz in steps of level, the same on all channels.
 *
 * @param  list<array{float, float}>  $steps  dBFS and seconds
 * @param  list<float>  $more  dB by which each channel differs
 */
function steppedSine(array $steps, Layout $layout, array $more = [], int $rate = 48000): Measurements
{
    $listening = new Analyzer($rate, $layout);
    $sine = Signal::sine($rate, 1000, $rate, 1.0);
    foreach ($steps as [$level, $seconds]) {
        $channels = [];
        foreach (array_keys($layout->channels) as $channel) {
            $gain = 10 ** (($level + ($more[$channel] ?? 0.0)) / 20);
            $channels[] = array_map(fn (float $sample): float => $gain * $sample, $sine);
        }
        $second = Block::fromChannels($channels);
        for ($left = (int) round($seconds * $rate); $left > 0; $left -= $rate) {
            $listening->take($second->part(0, min($rate, $left)));
        }
    }

    return $listening->finish();
}

it('measures the loudness of the signals of EBU Tech 3341 as it demands', function (array $steps, float $loudness) {
    expect(steppedSine($steps, Layout::stereo())->loudness->integrated)->toEqualWithDelta($loudness, 0.1);
})->with([
    'case 1' => [[[-23, 20]], -23.0],
    'case 2' => [[[-33, 20]], -33.0],
    'case 3' => [[[-36, 10], [-23, 60], [-36, 10]], -23.0],
    'case 4' => [[[-72, 10], [-36, 10], [-23, 60], [-36, 10], [-72, 10]], -23.0],
    'case 5' => [[[-26, 20], [-20, 20.1], [-26, 20]], -23.0],
]);

it('gives surrounds more weight and low frequencies none', function () {
    $five = Layout::fiveOne();
    // Case 6 of EBU Tech 3341: −28 left and right, −24 centre, −30 surrounds; low frequencies must not count.
    expect(steppedSine([[0, 20]], $five, [-28, -28, -24, -3, -30, -30])->loudness->integrated)->toEqualWithDelta(-23.0, 0.1);
});

it('measures each channel alone as well', function () {
    $alone = steppedSine([[0, 10]], Layout::fiveOne(), [-28, -31, -24, -20, -30, -100])->alone;
    // A sine of 1 kHz on one channel at −20 dBFS is −23 LUFS: BS.1770-4, annex 1, and 3 dB more for each doubling.
    foreach ([-31.0, -34.0, -27.0, -23.0, -33.0] as $channel => $loudness) {
        expect($alone[$channel])->toEqualWithDelta($loudness, 0.1);
    }
    expect($alone[5])->toBeNull();
});

it('measures loudness range as EBU Tech 3342 demands', function (array $steps, float $range) {
    expect(steppedSine($steps, Layout::stereo())->loudness->range)->toEqualWithDelta($range, 1.0);
})->with([
    'case 1' => [[[-20, 20], [-30, 20]], 10.0],
    'case 2' => [[[-20, 20], [-15, 20]], 5.0],
    'case 3' => [[[-40, 20], [-20, 20]], 20.0],
    'case 4' => [[[-50, 20], [-35, 20], [-20, 20], [-35, 20], [-50, 20]], 15.0],
]);

it('finds the peaks between samples as EBU Tech 3341 demands', function (int $divisor, float $degrees, float $level, float $peak) {
    $count = 48_000;
    $sine = [];
    for ($index = 0; $index < $count; $index++) {
        // Faded in and out, so that the edges make no peaks of their own.
        $edge = min(1.0, min($index, $count - $index) / 4800);
        $sine[] = $edge * $level * sin(2 * M_PI * $index / $divisor + deg2rad($degrees));
    }
    $listening = new Analyzer(48000, Layout::mono());
    $listening->take(Block::fromChannels([$sine]));
    $found = 20 * log10($listening->finish()->truePeak());
    expect($found)->toBeGreaterThan($peak - 0.4)->toBeLessThan($peak + 0.2);
})->with(['case 15' => [4, 0.0, 0.5, -6.0], 'case 16' => [4, 45.0, 0.5, -6.0], 'case 17' => [6, 60.0, 0.5, -6.0],
    'case 18' => [8, 67.5, 0.5, -6.0], 'case 19' => [4, 45.0, 1.41, 3.0]]);

it('agrees with an independent library on loudness, range and peaks', function (int $rate) {
    $left = Signal::steps(12 * $rate, 3);
    $right = Signal::sweep(12 * $rate, 0.3, 0.0000002, 0.01);
    foreach ($left as $index => $sample) {
        $swell = abs(sin($index / $rate * 0.9)) * ($index > 6 * $rate ? 1.0 : 0.2);
        $left[$index] = 0.8 * $swell * $sample;
        $right[$index] *= $swell;
    }
    $block = Block::fromChannels([$left, $right]);
    $listening = new Analyzer($rate, Layout::stereo());
    // In uneven parts, as decoders give them.
    for ($at = 0; $at < $block->frames; $at += $count) {
        $count = min(977, $block->frames - $at);
        $listening->take($block->part($at, $count));
    }
    $measured = $listening->finish();
    [$loudness, $range, $peaks] = LoudnessLibrary::measure($block, $rate);
    expect($measured->loudness->integrated)->toEqualWithDelta($loudness, 0.02)
        ->and($measured->loudness->range)->toEqualWithDelta($range, 0.8)
        ->and(20 * log10($measured->truePeaks[0] / $peaks[0]))->toEqualWithDelta(0.0, 0.6)
        ->and(20 * log10($measured->truePeaks[1] / $peaks[1]))->toEqualWithDelta(0.0, 0.6);
})->with([48000, 44100, 22050]);

it('filters in blocks as sample by sample', function () {
    $chain = [Biquad::headShelf(44100), Biquad::lowCut(44100), Biquad::pass(44100, 3000, true)];
    $count = 5 * BlockFilter::step();
    $input = array_map(fn (float $sample): float => $sample + 0.1, Signal::steps($count, 9));
    $from = FloatBuffer::fromBytes(pack('f*', ...$input));
    $to = new FloatBuffer($count);
    $filter = new BlockFilter(...$chain);
    $filter->filter($from, 0, $to, 0, 2 * BlockFilter::step());
    $filter->filter($from, 2 * BlockFilter::step(), $to, 2 * BlockFilter::step(), 3 * BlockFilter::step());
    foreach ($chain as $one) {
        [$x1, $x2, $y1, $y2] = [0.0, 0.0, 0.0, 0.0];
        foreach ($input as $index => $x) {
            $y = $one->b0 * $x + $one->b1 * $x1 + $one->b2 * $x2 - $one->a1 * $y1 - $one->a2 * $y2;
            [$x2, $x1, $y2, $y1] = [$x1, $x, $y1, $y];
            $input[$index] = $y;
        }
    }
    expect(Signal::difference($input, array_values(unpack('f*', $to->bytes(0, $count)))))->toBeLessThan(-60.0);
});

it('draws ribbons whose every step holds the lowest and highest sample of it', function () {
    $channels = [Signal::steps(70_001, 1), Signal::sweep(70_001, 0.7)];
    $sink = new MemorySink;
    $listening = new Analyzer(8000, Layout::stereo(), $sink, 70_001);
    $listening->take(Block::fromChannels($channels));
    $listening->finish();
    $ribbon = Waveform::open(new MemoryBytes($sink->bytes()));
    expect([$ribbon->layout->samples, $ribbon->layout->channels, $ribbon->layout->rate, $ribbon->done])->toBe([70_001, 2, 8000, 70_001]);
    foreach ([[0, 70_001, 2000], [0, 70_001, 100], [1000, 9000, 50], [69_000, 80_000, 50], [0, 70_001, 1]] as [$from, $until, $most]) {
        [$step, $first, $bytes] = $ribbon->window($from, $until, $most);
        $values = array_map(fn (int $value): int => $value >= 0x8000 ? $value - 0x10000 : $value, array_values(unpack('v*', $bytes)));
        $wanted = [];
        for ($at = $first * $step; $at < min($until, 70_001); $at += $step) {
            foreach ($channels as $samples) {
                $part = array_slice($samples, $at, $step);
                array_push($wanted, (int) round(min($part) * 32767), (int) round(max($part) * 32767));
            }
        }
        $off = count($values) === count($wanted) ? max(array_map(fn (int $a, int $b): int => abs($a - $b), $values, $wanted)) : 99;
        expect($off)->toBeLessThanOrEqual(1)->and($first * $step)->toBeLessThanOrEqual($from);
    }
});

it('gives back a ribbon file while it grows', function () {
    $path = Scratch::folder().'/growing';
    $sink = FileSink::create($path);
    $listening = new Analyzer(48000, Layout::mono(), $sink, 3 * 32768);
    $listening->take(Block::fromChannels([array_fill(0, 32768 + 100, 0.5)]));
    $ribbon = Waveform::open(FileBytes::open($path));
    [, , $bytes] = $ribbon->window(0, 3 * 32768, 1000);
    expect($ribbon->done)->toBe(32768)->and(substr($bytes, 0, 4))->toBe(pack('vv', 16384, 16384))->and(substr($bytes, -4))->toBe("\0\0\0\0")
        ->and(Waveform::open(new MemoryBytes(str_repeat('x', 100))))->toBeNull()->and(WaveformLayout::read('short'))->toBeNull();
});

it('finds silences in ribbons', function () {
    $sound = [...array_fill(0, 10_240, 0.3), ...array_fill(0, 20_480, 0.001), ...array_fill(0, 5120, 0.3), ...array_fill(0, 2560, 0.0),
        ...array_fill(0, 1000, 0.2)];
    $sink = new MemorySink;
    $listening = new Analyzer(8000, Layout::mono(), $sink, count($sound));
    $listening->take(Block::fromChannels([$sound]));
    $listening->finish();
    $ribbon = Waveform::open(new MemoryBytes($sink->bytes()));
    expect($ribbon->silences(0.01, 4000))->toBe([[10_240, 30_720]])
        ->and($ribbon->silences(0.01, 1000))->toBe([[10_240, 30_720], [35_840, 38_400]])
        ->and($ribbon->silences(0.0005, 1000))->toBe([[35_840, 38_400]]);
});

it('listens to a source from where its picture starts and keeps what it measured', function () {
    $path = Scratch::write('tone.wav',
        Signal::wave([Signal::sine(96_000, 440, 48000, 0.5), array_fill(0, 96_000, 0.0)], SampleFormat::signed(16)));
    $source = Opener::open($path);
    $measured = Analyzer::to($source, $source->sound()[0]);
    expect($measured->levels[0]->peakDecibels())->toEqualWithDelta(-6.02, 0.01)
        ->and($measured->levels[1]->peak)->toBe(0.0)
        ->and(Measurements::fromArray(json_decode(json_encode($measured->toArray()), true))->toArray())->toEqual($measured->toArray());
});

it('hears what is wrong with made-up clips, and says how often it is right', function () {
    $right = $wrong = $missed = [];
    foreach (Clips::all() as $name => [$channels, $wanted]) {
        $layout = count($channels) === 1 ? Layout::mono() : Layout::stereo();
        $listening = new Analyzer(16000, $layout);
        $listening->take(Block::fromChannels($channels));
        $codes = array_map(fn (Finding $finding): string => $finding->code(),
            AnalysisFindings::find(Track::sound(1, AudioFormat::pcm(SampleFormat::signed(16), 16000, $layout),
                Timeline::plain(count($channels[0])), 0), $listening->finish()));
        foreach (array_unique([...$codes, ...$wanted]) as $code) {
            $right[$code] = ($right[$code] ?? 0) + (int) (in_array($code, $codes, true) && in_array($code, $wanted, true));
            $wrong[$code] = ($wrong[$code] ?? 0) + (int) ! in_array($code, $wanted, true);
            $missed[$code] = ($missed[$code] ?? 0) + (int) ! in_array($code, $codes, true);
            if (in_array($code, $codes, true) !== in_array($code, $wanted, true)) {
                fwrite(STDERR, sprintf("  %s: heard %s, wanted %s\n", $name, implode(' ', $codes), implode(' ', $wanted)));
            }
        }
    }
    foreach ($right as $code => $count) {
        fwrite(STDERR, sprintf("  %-16s right %d, wrong %d, missed %d\n", $code, $count, $wrong[$code], $missed[$code]));
    }
    expect(count($right))->toBeGreaterThanOrEqual(7)->and(array_sum($wrong))->toBeLessThanOrEqual(1)->and(array_sum($missed))
        ->toBeLessThanOrEqual(1);
})->group('slow');

it('knows that channels without a place are no pair', function () {
    $listening = new Analyzer(8000, Layout::of(Channel::Unplaced, Channel::Unplaced, Channel::Unplaced));
    $listening->take(Block::fromChannels([Signal::steps(9000, 1), Signal::steps(9000, 2), Signal::steps(9000, 3)]));
    expect($listening->finish()->image)->toBeNull();
});

it('hears a long track in two processes as one does', function () {
    // Ten minutes at 8 kHz: tones of changing level, and a clipped moment in each half.
    $seconds = 600;
    $data = '';
    for ($second = 0; $second < $seconds; $second++) {
        $level = 3000 + 9000 * abs(sin($second * 0.37));
        $data .= pack('v*',
            ...array_map(fn (int $index): int => (int) ($level * sin(($second * 8000 + $index) * (0.1 + 0.00001 * $second))) & 0xFFFF,
                range(0, 7999)));
    }
    foreach ([100, 500] as $second) {
        $data = substr_replace($data, str_repeat(pack('v', 32767), 20), $second * 16_000, 40);
    }
    $path = Scratch::write('long.wav', 'RIFF'.pack('V', 36 + strlen($data)).'WAVEfmt '.pack('VvvVVvv', 16, 1, 1, 8000, 16000, 2,
        16).'data'.pack('V', strlen($data)).$data);
    $source = Opener::open($path);
    expect(Analyzer::middle($source, $source->sound()[0]))->toBe(2_097_152);
    $one = FileSink::create($path.'.one');
    $alone = Analyzer::to($source, $source->sound()[0], $one);
    $one->close();
    $process = proc_open([PHP_BINARY, '-d', 'ffi.enable=1', dirname(__DIR__).'/bin/analysis.php'],
        [['pipe', 'r'], ['pipe', 'w'], STDERR], $pipes);
    fwrite($pipes[0], json_encode(['path' => $path, 'track' => 1, 'waveform' => $path.'.two']));
    fclose($pipes[0]);
    $lines = explode("\n", trim(stream_get_contents($pipes[1])));
    expect(proc_close($process))->toBe(0);
    $both = Measurements::fromArray(json_decode(end($lines), true)['answer']['analysis']);
    expect($both->samples)->toBe($alone->samples)
        ->and($both->loudness->integrated)->toEqualWithDelta($alone->loudness->integrated, 0.01)
        ->and($both->loudness->range)->toEqualWithDelta($alone->loudness->range, 0.02)
        ->and($both->level()->rms)->toEqualWithDelta($alone->level()->rms, 1e-6)
        ->and($both->truePeak())->toEqualWithDelta($alone->truePeak(), 1e-4)
        ->and([$both->clips, $both->places])->toBe([2, [800_000, 4_000_000]])
        ->and(hash_file('xxh128', $path.'.two'))->toBe(hash_file('xxh128', $path.'.one'));
});
