<?php

declare(strict_types=1);

namespace Octavox\Core\Media;

/**
 * What a sound track presents and when: edits, start time, encoder delay and padding in one.
 * All counts are samples at the rate of the decoded sound.
 */
final readonly class Timeline
{
    /** @param  list<Segment>  $segments */
    private function __construct(public int $startOffset, public array $segments, public int $coded) {}

    /**
     * $length samples after dropping $skip at the start.
     *
     * @param  ?int  $coded  samples that all packets together decode to; null where that is just these
     */
    public static function plain(int $length, int $skip = 0, ?int $coded = null): self
    {
        return new self(0, [Segment::media($skip, max(0, $length))], $coded ?? $skip + max(0, $length));
    }

    /**
     * @param  int  $startOffset  samples of movie time before the track begins
     * @param  list<Segment>  $segments
     * @param  int  $coded  samples that all packets together decode to
     */
    public static function edited(int $startOffset, array $segments, int $coded): self
    {
        return new self($startOffset, $segments, $coded);
    }

    /** Number of samples from the track's first to its last. */
    public function samples(): int
    {
        return Segment::total($this->segments);
    }

    /** Decoded samples that are left out before the first that is presented: the encoder's delay, or what an edit cuts. */
    public function skipped(): int
    {
        foreach ($this->segments as $segment) {
            if ($segment->from !== null) {
                return $segment->from;
            }
        }

        return 0;
    }

    /** Without the first decoded samples, where nothing was left out yet. */
    public function primed(int $samples): self
    {
        $first = $this->segments[0] ?? null;
        if ($first === null || $first->from !== 0 || $first->length <= $samples) {
            return $this;
        }

        return new self($this->startOffset,
            [Segment::media($samples, $first->length - $samples), ...array_slice($this->segments, 1)], $this->coded);
    }

    /** For decoders that give several samples where the container counts one. */
    public function times(int $factor): self
    {
        return new self($this->startOffset * $factor, array_map(
            fn (Segment $segment): Segment => $segment->from === null ? Segment::silence($segment->length * $factor)
                : Segment::media($segment->from * $factor, $segment->length * $factor),
            $this->segments,
        ), $this->coded * $factor);
    }

    /**
     * The segments with sound, seen from a moment of movie time: later tracks get silence before, earlier parts are cut.
     *
     * @param  int  $presentationStart  in samples
     * @param  ?int  $duration  samples from that moment on: what is longer is cut, what is shorter gets silence; null as long as
     *          the track presents
     * @return list<Segment>
     */
    public function from(int $presentationStart, ?int $duration = null): array
    {
        $segments = $this->begun($presentationStart);

        return $duration === null ? $segments : self::lasting($segments, $duration);
    }

    /**
     * @param  list<Segment>  $segments
     * @return list<Segment>
     */
    private static function lasting(array $segments, int $duration): array
    {
        $kept = [];
        foreach ($segments as $segment) {
            $count = min($segment->length, $duration);
            $duration -= $count;
            if ($count > 0) {
                $kept[] = $segment->from === null ? Segment::silence($count) : Segment::media($segment->from, $count);
            }
        }

        return $duration > 0 ? [...$kept, Segment::silence($duration)] : $kept;
    }

    /** @return list<Segment> */
    private function begun(int $presentationStart): array
    {
        if ($this->startOffset > $presentationStart) {
            return [Segment::silence($this->startOffset - $presentationStart), ...$this->segments];
        }
        $drop = $presentationStart - $this->startOffset;
        $kept = [];
        foreach ($this->segments as $segment) {
            $cut = min($drop, $segment->length);
            $drop -= $cut;
            if ($cut < $segment->length) {
                $kept[] = $segment->from === null ? Segment::silence($segment->length - $cut)
                    : Segment::media($segment->from + $cut, $segment->length - $cut);
            }
        }

        return $kept;
    }
}
