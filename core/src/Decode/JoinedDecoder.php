<?php

declare(strict_types=1);

namespace Octavox\Core\Decode;

use Octavox\Core\Failure;
use Octavox\Core\Media\Segment;
use Octavox\Core\Media\Track;
use Octavox\Core\Reading\OpenedSource;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Sound\Native\VectorMath;

/** The channels of several tracks of one rate side by side, as if they were one; what ends early goes on in silence. */
final class JoinedDecoder
{
    private const FRAMES = 16384;

    /** @param  non-empty-list<Track>  $tracks  sound tracks */
    public function __construct(private readonly OpenedSource $source, private readonly array $tracks) {}

    /**
     * @param  list<list<Segment>>  $segments  what is heard of each track, all of one length
     * @return iterable<Block>
     *
     * @throws Failure
     */
    public function blocks(array $segments): iterable
    {
        $counts = array_map(fn (Track $track): int => $track->sound?->channels() ?? 1, $this->tracks);
        $total = array_sum($counts);
        $room = new FloatBuffer(self::FRAMES * $total);
        $feeds = array_map(fn (Track $track, array $own): \Generator => (new TrackDecoder($this->source->media, $track,
            $this->source->damage))->blocks($own), $this->tracks, $segments);
        $used = array_fill(0, count($feeds), 0);
        for ($left = Segment::total($segments[0] ?? []); $left > 0; $left -= $frames) {
            $frames = min(self::FRAMES, $left);
            $first = 0;
            foreach ($feeds as $index => $feed) {
                for ($done = 0; $done < $frames && $feed->valid(); $done += $count) {
                    $block = $feed->current();
                    $count = min($frames - $done, $block->frames - $used[$index]);
                    for ($channel = 0; $channel < $counts[$index]; $channel++) {
                        VectorMath::get()->spread($block->buffer, $block->first() + $used[$index] * $block->channels + $channel,
                            $block->channels, $room, $done * $total + $first + $channel, $total, $count);
                    }
                    $used[$index] += $count;
                    if ($used[$index] >= $block->frames) {
                        $used[$index] = 0;
                        $feed->next();
                    }
                }
                $first += $counts[$index];
            }
            yield new Block($room, $frames, $total);
        }
    }
}
