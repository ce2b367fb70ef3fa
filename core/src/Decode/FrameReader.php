<?php

declare(strict_types=1);

namespace Octavox\Core\Decode;

use Octavox\Core\Codec\CodecNotDecodable;
use Octavox\Core\Container\StatedAs;
use Octavox\Core\Failure;
use Octavox\Core\Media\PresentationStart;
use Octavox\Core\Reading\Opener;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\BlockTooLarge;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Sound\Mix;
use Octavox\Core\Sound\Mixer;
use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Sound\Native\LibraryMissing;
use Octavox\Core\Sound\NoStandardMix;

/** The presented sound of a file's first sound track, in pieces of whatever size is asked for. */
final class FrameReader
{
    private readonly \Generator $blocks;

    private int $used = 0;

    /**
     * @param  iterable<Block>  $blocks
     * @param  int  $late  samples by which the sound begins after the picture; 0 without one
     */
    private function __construct(public readonly int $frames, public readonly int $rate, public readonly int $channels, iterable $blocks,
        public readonly int $late)
    {
        $this->blocks = (static function () use ($blocks): \Generator {
            yield from $blocks;
        })();
    }

    /**
     * @throws Failure
     */
    public static function open(string $path, ?StatedAs $stated = null): self
    {
        $source = Opener::open($path, $stated);
        $track = $source->sound()[0] ?? throw TrackMissing::sound($path);
        $audio = $track->sound ?? throw CodecNotDecodable::named('of no form');

        return new self($track->timeline->samples(), $audio->rate, $audio->channels(),
            self::ordered($audio->layout, (new TrackDecoder($source->media, $track))->blocks($track->timeline->segments)),
            $track->timeline->startOffset - PresentationStart::find($source->tracks, $audio->rate));
    }

    /**
     * Formats order their channels differently; here they always come in the order of the WAV mask.
     *
     * @param  iterable<Block>  $blocks
     * @return iterable<Block>
     *
     * @throws NoStandardMix
     * @throws BlockTooLarge
     * @throws LibraryMissing
     */
    private static function ordered(Layout $layout, iterable $blocks): iterable
    {
        $mix = Mix::between($layout, $layout->inMaskOrder());
        if ($mix->isStraight()) {
            return $blocks;
        }
        $mixer = new Mixer($mix);

        return (function () use ($blocks, $mixer): \Generator {
            foreach ($blocks as $block) {
                yield from $mixer->take($block);
            }
        })();
    }

    /** Fills $room from its begin with up to $frames frames; gives how many there were. */
    public function read(FloatBuffer $room, int $frames): int
    {
        $filled = 0;
        while ($filled < $frames && $this->blocks->valid()) {
            /** @var Block $block */
            $block = $this->blocks->current();
            $count = min($frames - $filled, $block->frames - $this->used);
            $room->copy($filled * $this->channels, $block->buffer, $block->first() + $this->used * $this->channels,
                $count * $this->channels);
            $filled += $count;
            $this->used += $count;
            if ($this->used === $block->frames) {
                $this->used = 0;
                $this->blocks->next();
            }
        }

        return $filled;
    }

    /** @throws BlockTooLarge */
    public function skip(int $frames): void
    {
        $room = new FloatBuffer(16384 * $this->channels);
        for ($left = $frames; $left > 0; $left -= $count) {
            $count = $this->read($room, min($left, 16384));
            if ($count === 0) {
                return;
            }
        }
    }
}
