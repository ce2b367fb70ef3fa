<?php

declare(strict_types=1);

namespace Octavox\Core\Sound;

/**
 * Gains from each channel coming in to each channel going out.
 *
 * Down-mix coefficients are those of ITU-R BS.775-3, annex 4: centre and surrounds at −3 dB, low frequencies left out.
 */
final readonly class Mix
{
    /** −3 dB, 1/√2: ITU-R BS.775-3, annex 4, table 2. */
    private const MINUS_3_DB = M_SQRT1_2;

    /** @param  non-empty-list<non-empty-list<float>>  $gains one row a channel going out, one gain a channel coming in */
    private function __construct(public array $gains) {}

    /**
     * From one layout to another by the standard coefficients; the same layout passes untouched.
     * Rows whose gains add up to more than 1 are lowered together so that a full-scale source cannot clip.
     *
     * @throws NoStandardMix where no standard says how
     */
    public static function between(Layout $from, Layout $to): self
    {
        $places = $from->placesOf($to);
        if ($places !== null) {
            return self::routed($places);
        }
        if ($to->count() === 1) {
            return $from->count() === 2
                ? new self([[0.5, 0.5]])
                : self::lowered([self::half(self::stereoRows($from))]);
        }
        if ($to->name() === 'stereo') {
            return $from->count() === 1 ? new self([[1.0], [1.0]]) : self::lowered(self::stereoRows($from));
        }

        $within = $from->count() > 2 ? $from->placesWithin($to) : null;
        if ($within !== null) {
            return self::placed($within, $from->count());
        }

        throw NoStandardMix::between($from, $to);
    }

    /**
     * Channels among others that stay silent.
     *
     * @param  non-empty-list<?int>  $places  for each channel going out that coming in; null for silence
     */
    public static function placed(array $places, int $incoming): self
    {
        return new self(array_map(function (?int $place) use ($incoming): array {
            $row = array_fill(0, max(1, $incoming), 0.0);
            if ($place !== null) {
                $row[$place] = 1.0;
            }

            return array_values($row);
        }, $places));
    }

    /**
     * Any gains somebody chose.
     *
     * @param  non-empty-list<non-empty-list<float>>  $gains  one row a channel going out, one gain a channel coming in; negative ones flip
     */
    public static function ofGains(array $gains): self
    {
        return new self($gains);
    }

    /** Whether every channel going out is one that comes in, at most flipped: no sample gets a value between two steps. */
    public function isPicking(): bool
    {
        foreach ($this->gains as $row) {
            $heard = array_values(array_filter($row, fn (float $gain): bool => $gain !== 0.0));
            if ($heard !== [1.0] && $heard !== [-1.0] && $heard !== []) {
                return false;
            }
        }

        return true;
    }

    /**
     * The highest peak that can come of it.
     *
     * @param  list<float>  $peaks  of the channels coming in
     */
    public function highestPeak(array $peaks): float
    {
        return max(array_map(fn (array $row): float => array_sum(array_map(fn (float $gain, float $peak): float => abs($gain) * $peak,
            $row, $peaks)), $this->gains));
    }

    public function isStraight(): bool
    {
        return $this->gains === self::straight(count($this->gains[0]))->gains;
    }

    public function inputs(): int
    {
        return count($this->gains[0]);
    }

    public function outputs(): int
    {
        return count($this->gains);
    }

    private static function straight(int $count): self
    {
        return self::routed(range(0, max(1, $count) - 1));
    }

    /**
     * Each channel going out is one that comes in, untouched.
     *
     * @param  list<int>  $places  which one, counted from 0
     * @param  ?int  $count  channels coming in; null where there are as many as go out
     */
    public static function routed(array $places, ?int $count = null): self
    {
        $inputs = $places === [] ? [0] : range(0, max(1, $count ?? count($places)) - 1);

        return new self(array_map(
            fn (int $place): array => array_map(fn (int $input): float => $input === $place ? 1.0 : 0.0, $inputs),
            $places === [] ? [0] : $places,
        ));
    }

    /** @return array{non-empty-list<float>, non-empty-list<float>} */
    private static function stereoRows(Layout $from): array
    {
        $left = [];
        $right = [];
        foreach ($from->channels as $index => $channel) {
            [$left[], $right[]] = match ($channel) {
                Channel::Left => [1.0, 0.0],
                Channel::Right => [0.0, 1.0],
                Channel::Centre => [self::MINUS_3_DB, self::MINUS_3_DB],
                Channel::SideLeft, Channel::BackLeft => [self::MINUS_3_DB, 0.0],
                Channel::SideRight, Channel::BackRight => [0.0, self::MINUS_3_DB],
                // Half way between the side and the centre, with equal power.
                Channel::LeftOfCentre => [cos(M_PI / 8), sin(M_PI / 8)],
                Channel::RightOfCentre => [sin(M_PI / 8), cos(M_PI / 8)],
                Channel::BackCentre => [0.5, 0.5],
                Channel::LowFrequency => [0.0, 0.0],
                // A channel without a place: the odd ones are heard left, the even ones right.
                Channel::Unplaced => $index % 2 === 0 ? [1.0, 0.0] : [0.0, 1.0],
            };
        }

        return [$left, $right];
    }

    /**
     * @param  array{non-empty-list<float>, non-empty-list<float>}  $rows
     * @return non-empty-list<float>
     */
    private static function half(array $rows): array
    {
        return array_map(fn (float $left, float $right): float => ($left + $right) / 2, $rows[0], $rows[1]);
    }

    /** @param  non-empty-list<non-empty-list<float>>  $rows */
    private static function lowered(array $rows): self
    {
        $most = max(array_map(array_sum(...), $rows));
        $factor = $most > 1.0 ? 1.0 / $most : 1.0;

        return new self(array_map(fn (array $row): array => array_map(fn (float $gain): float => $gain * $factor, $row), $rows));
    }
}
