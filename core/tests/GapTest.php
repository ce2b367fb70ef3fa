<?php

declare(strict_types=1);

use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileBytes;
use Octavox\Core\Container\Demuxer;
use Octavox\Core\Decode\TrackDecoder;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Packet;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Media\Segment;
use Octavox\Core\Media\Timeline;
use Octavox\Core\Media\Track;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Tag\Tags;
use Octavox\Core\Tests\Support\Scratch;

/**
 * Mono of one value at 48 kHz whose packets stand where they are told to. @param  list<array{int, int}>  $packets  first sample, samples
 */
function withPacketsAt(array $packets): Demuxer
{
    return new class($packets) implements Demuxer
    {
        /** @param  list<array{int, int}>  $packets */
        public function __construct(private array $packets) {}

        public function container(): string
        {
            return 'gaps';
        }

        public function source(): ByteSource
        {
            return FileBytes::open(Scratch::write('gaps.bin', str_repeat('x', 100_000)));
        }

        public function tracks(): array
        {
            return [];
        }

        public function tags(): Tags
        {
            return Tags::none();
        }

        public function chapters(): array
        {
            return [];
        }

        public function diagnostics(): array
        {
            return [];
        }

        public function packets(Track $track, int $from, int $until): iterable
        {
            foreach ($this->packets as [$start, $length]) {
                yield new Packet(str_repeat(pack('v', 16_384), $length), $start, $length);
            }
        }
    };
}

it('keeps sound where its packets stand, with silence where there are none', function (array $packets, array $heard) {
    $audio = AudioFormat::pcm(SampleFormat::signed(16), 48_000, Layout::mono());
    $samples = '';
    foreach ((new TrackDecoder(withPacketsAt($packets), Track::sound(1, $audio, Timeline::plain(14_400), 28_800)))->blocks([Segment::media(0,
        14_400)]) as $block) {
        $samples .= $block->bytes();
    }
    $runs = [];
    foreach (unpack('f*', $samples) ?: [] as $sample) {
        $isHeard = $sample !== 0.0;
        if ($runs === [] || $runs[count($runs) - 1][0] !== $isHeard) {
            $runs[] = [$isHeard, 0];
        }
        $runs[count($runs) - 1][1]++;
    }
    expect($runs)->toBe($heard);
})->with([
    'none missing' => [[[0, 4800], [4800, 9600]], [[true, 14_400]]],
    'it begins a tenth of a second late' => [[[4800, 9600]], [[false, 4800], [true, 9600]]],
    'it begins as late as a time may be rounded' => [[[900, 13_500]], [[true, 13_500], [false, 900]]],
    'a tenth of a second is missing within' => [[[0, 4800], [9600, 4800]], [[true, 4800], [false, 4800], [true, 4800]]],
]);
