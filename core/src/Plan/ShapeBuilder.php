<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

use Octavox\Core\Failure;
use Octavox\Core\Order\SoundSpec;
use Octavox\Core\Sound\ChannelMap;
use Octavox\Core\Sound\InvalidTime;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Sound\LevelTarget;
use Octavox\Core\Sound\Piece;
use Octavox\Core\Sound\TimePosition;

/** What was asked of a sound's channels, pieces, fades and level → the shapes of its results, for one source. */
final readonly class ShapeBuilder
{
    public const MOST_PIECES = 500;

    /** Chapters without the gaps between them. */
    private const WITHOUT_GAPS = 'chapters:without-gaps';

    /**
     * @param  int  $rate  Hz of the source
     * @param  int  $length  samples that the track presents
     * @param  float  $pictures  a second, 0 where there are none
     * @param  list<int>  $chapters  samples at which chapters begin
     * @param  array<int, int>  $ends  samples at which those end that a gap follows
     */
    public function __construct(private Layout $from, private int $rate, private int $length, private float $pictures,
        private array $chapters = [], private array $ends = []) {}

    /**
     * One shape for each result.
     *
     * @return non-empty-list<Shape>
     *
     * @throws Failure where what was written cannot be read or does not fit the source
     */
    public function shapes(SoundSpec $spec): array
    {
        $map = in_array($spec->layout, [null, '', 'asis'], true) ? null
            : ChannelMap::parse($spec->layout, $this->from, $spec->labels ?? []);
        $level = in_array($spec->level, [null, ''], true) ? null : LevelTarget::parse($spec->level);
        $pieces = match ($spec->pieces) {
            'chapters', self::WITHOUT_GAPS => $this->ofChapters($spec->pieces === self::WITHOUT_GAPS),
            default => $this->pieces($spec->pieces ?? ''),
        };
        $groups = $spec->separate === true && $pieces !== [] ? array_map(fn (Piece $piece): array => [$piece], $pieces) : [$pieces];
        $shapes = [];
        foreach ($groups as $number => $group) {
            $total = $group === [] ? $this->length : array_sum(array_map(fn (Piece $piece): int => $piece->length(), $group));
            [$in, $out] = [$this->fade($spec->fadeIn, $total), $this->fade($spec->fadeOut, $total)];
            foreach ($map->results ?? [null] as $routing) {
                $shapes[] = new Shape($routing, $group, $in, $out, $level, count($groups) > 1 ? $number + 1 : 0,
                    label: $routing->label ?? '');
            }
        }

        return $shapes;
    }

    /**
     * @param  string  $text  see {@see SoundSpec::$pieces}
     * @return list<Piece>
     *
     * @throws InvalidTime
     */
    public function pieces(string $text): array
    {
        $pieces = [];
        $parts = array_filter(explode(',', $text), fn (string $part): bool => trim($part) !== '');
        if (count($parts) > self::MOST_PIECES) {
            throw InvalidTime::pieces($text);
        }
        foreach ($parts as $part) {
            if (preg_match('/^\s*([-−]?[^-−]+)[-–]([-−]?[^-−]*)$/u', $part, $ends) !== 1) {
                throw InvalidTime::pieces($text);
            }
            $pieces[] = $this->piece(
                TimePosition::parse($ends[1], $this->rate, $this->length, $this->pictures),
                TimePosition::parse($ends[2], $this->rate, $this->length, $this->pictures),
            );
        }

        return $pieces;
    }

    /** @throws InvalidTime */
    private function fade(?string $text, int $total): int
    {
        return in_array($text, [null, ''], true) ? 0 : min($total, TimePosition::parse($text, $this->rate, $total, $this->pictures));
    }

    /**
     * @return list<Piece>
     *
     * @throws InvalidTime
     */
    private function ofChapters(bool $isTight): array
    {
        $pieces = [];
        foreach ($this->chapters as $index => $from) {
            $until = min($isTight ? $this->ends[$index] ?? PHP_INT_MAX : PHP_INT_MAX, $this->chapters[$index + 1] ?? $this->length,
                $this->length);
            if ($until > $from) {
                $pieces[] = new Piece($from, $until);
            }
        }

        return $pieces === [] ? throw InvalidTime::noChapters() : $pieces;
    }

    /** @throws InvalidTime */
    private function piece(int $from, int $until): Piece
    {
        $write = fn (int $samples): string => TimePosition::write($samples, $this->rate);
        if ($from >= $this->length) {
            throw InvalidTime::beyond($write($from), $write($this->length));
        }
        if ($until < $from) {
            throw InvalidTime::turned($write($from), $write($until));
        }
        if ($until === $from) {
            throw InvalidTime::empty($write($from));
        }

        return new Piece($from, min($until, $this->length));
    }
}
