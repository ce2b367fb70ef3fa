<?php

declare(strict_types=1);

namespace Octavox\Core\Media;

/** A stretch of what a track presents: a stretch of its coded sound, or silence. Counted in samples. */
final readonly class Segment
{
    private function __construct(public ?int $from, public int $length) {}

    public static function media(int $from, int $length): self
    {
        return new self($from, $length);
    }

    public static function silence(int $length): self
    {
        return new self(null, $length);
    }

    /** @param  list<self>  $segments */
    public static function total(array $segments): int
    {
        return array_sum(array_map(fn (self $segment): int => $segment->length, $segments));
    }

    /**
     * Samples of silence among them.
     *
     * @param  list<self>  $segments
     */
    public static function silent(array $segments): int
    {
        return self::total(array_values(array_filter($segments, fn (self $segment): bool => $segment->from === null)));
    }

    /**
     * What of them lies between two samples, counted from their begin.
     *
     * @param  list<self>  $segments
     * @return list<self>
     */
    public static function between(array $segments, int $from, int $until): array
    {
        $found = [];
        $at = 0;
        foreach ($segments as $segment) {
            $begin = max($from, $at);
            $count = min($until, $at + $segment->length) - $begin;
            if ($count > 0) {
                $found[] = $segment->from === null ? self::silence($count) : self::media($segment->from + $begin - $at, $count);
            }
            $at += $segment->length;
        }

        return $found;
    }

    /**
     * Whether there is nothing but silence, if anything.
     *
     * @param  list<self>  $segments
     */
    public static function areEmpty(array $segments): bool
    {
        return array_filter($segments, fn (self $segment): bool => $segment->from !== null && $segment->length > 0) === [];
    }
}
