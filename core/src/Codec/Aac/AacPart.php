<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Aac;

use Octavox\Core\Codec\Native\VoAac;
use Octavox\Core\Sound\Biquad;
use Octavox\Core\Sound\BlockFilter;
use Octavox\Core\Sound\BlockTooLarge;
use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Sound\Native\LibraryMissing;
use Octavox\Core\Sound\Native\VectorMath;

/** One element of AAC with more than two channels: an encoder of its own for a channel, a pair, or low frequencies. */
final class AacPart
{
    private const FRAME = 1024;

    private readonly FloatBuffer $room;

    private readonly ?FloatBuffer $plain;

    private readonly ?BlockFilter $filter;

    /**
     * @param  non-empty-list<int>  $places  its channels among those that come in
     * @param  ?int  $lowAt  Hz of the whole where it is for low frequencies; null for full channels
     * @param  int  $frames  that are encoded together
     *
     * @throws BlockTooLarge
     */
    public function __construct(private readonly VoAac $library, public readonly int $element, public readonly int $tag,
        private readonly array $places, ?int $lowAt, private readonly int $frames)
    {
        $this->room = new FloatBuffer($frames * count($places));
        $this->plain = $lowAt === null ? null : new FloatBuffer($frames);
        $this->filter = $lowAt === null ? null : new BlockFilter(Biquad::pass($lowAt, AacDelay::hertz($lowAt), false),
            Biquad::pass($lowAt, AacDelay::hertz($lowAt), false));
    }

    /**
     * Takes its channels out of frames that hold all.
     *
     * @param  int  $lag  frames that low frequencies are ahead of the others
     *
     * @throws LibraryMissing
     */
    public function take(FloatBuffer $from, int $channels, int $lag): void
    {
        $first = $this->plain === null ? 0 : $lag * $channels;
        $target = $this->plain ?? $this->room;
        foreach ($this->places as $channel => $place) {
            VectorMath::get()->spread($from, $first + $place, $channels, $target, $channel, count($this->places), $this->frames);
        }
        if ($this->plain !== null) {
            $this->filter?->filter($this->plain, 0, $this->room, 0, $this->frames);
        }
    }

    /**
     * The access unit of one of the frames that were taken; empty where it failed.
     *
     * @throws LibraryMissing
     */
    public function encode(int $frame): string
    {
        return $this->library->encode($this->room, $frame * self::FRAME * count($this->places));
    }
}
