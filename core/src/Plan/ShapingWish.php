<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

use Octavox\Core\Failure;
use Octavox\Core\Sound\ChannelMap;
use Octavox\Core\Sound\InvalidTime;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Sound\LevelTarget;
use Octavox\Core\Sound\Piece;
use Octavox\Core\Sound\TimePosition;

/** How somebody wants sound to be shaped, as it was written; what it means depends on the source. */
final readonly class ShapingWish
{
    public const MOST_PIECES = 500;

    /**
     * @param  string  $layout  as {@see ChannelMap::parse()} reads it
     * @param  list<string>  $labels  of the channels that come in
     * @param  string  $pieces  begin and end of each, parted by a hyphen, pieces parted by commas, times as {@see TimePosition::parse()} reads them; `chapters` for each of them; empty for the whole
     * @param  bool  $apart  whether each piece becomes a result of its own
     * @param  string  $fadeIn  a time
     * @param  string  $fadeOut  a time
     * @param  string  $level  as {@see LevelTarget::parse()} reads it, empty to leave it
     * @param  bool  $exact  whether a piece is rather encoded anew than moved to frame borders
     */
    public function __construct(
        public string $layout = '',
        public array $labels = [],
        public string $pieces = '',
        public bool $apart = false,
        public string $fadeIn = '',
        public string $fadeOut = '',
        public string $level = '',
        public bool $exact = false,
    ) {
    }

    /**
     * One shape for each result.
     *
     * @param  int  $length  samples that the track presents
     * @param  float  $frames  pictures a second, 0 where there are none
     * @param  list<int>  $chapters  samples at which chapters begin
     * @return non-empty-list<Shape>
     *
     * @throws Failure where what was written cannot be read or does not fit the source
     */
    public function shapes(Layout $from, int $rate, int $length, float $frames, array $chapters = []): array
    {
        $map = $this->layout === '' || $this->layout === 'asis' ? null : ChannelMap::parse($this->layout, $from, $this->labels);
        $level = $this->level === '' ? null : LevelTarget::parse($this->level);
        $pieces = $this->pieces === 'chapters' ? self::ofChapters($chapters, $length) : $this->pieces($rate, $length, $frames);
        $groups = $this->apart && $pieces !== [] ? array_map(fn (Piece $piece): array => [$piece], $pieces) : [$pieces];
        $shapes = [];
        foreach ($groups as $number => $group) {
            $total = $group === [] ? $length : array_sum(array_map(fn (Piece $piece): int => $piece->length(), $group));
            $in = $this->fadeIn === '' ? 0 : min($total, TimePosition::parse($this->fadeIn, $rate, $total, $frames));
            $out = $this->fadeOut === '' ? 0 : min($total, TimePosition::parse($this->fadeOut, $rate, $total, $frames));
            foreach ($map->results ?? [null] as $routing) {
                $shapes[] = new Shape($routing, $group, $in, $out, $level, count($groups) > 1 ? $number + 1 : 0, label: $routing->label ?? '');
            }
        }

        return $shapes;
    }

    /**
     * @return list<Piece>
     *
     * @throws InvalidTime
     */
    public function pieces(int $rate, int $length, float $frames): array
    {
        $pieces = [];
        $parts = array_filter(explode(',', $this->pieces), fn (string $part): bool => trim($part) !== '');
        if (count($parts) > self::MOST_PIECES) {
            throw InvalidTime::pieces($this->pieces);
        }
        foreach ($parts as $part) {
            if (preg_match('/^\s*([-−]?[^-−]+)[-–]([-−]?[^-−]*)$/u', $part, $ends) !== 1) {
                throw InvalidTime::pieces($this->pieces);
            }
            $from = TimePosition::parse($ends[1], $rate, $length, $frames);
            $until = TimePosition::parse($ends[2], $rate, $length, $frames);
            $pieces[] = self::piece($from, $until, $rate, $length);
        }

        return $pieces;
    }

    public function withPieces(string $pieces): self
    {
        return new self($this->layout, $this->labels, $pieces, $this->apart, $this->fadeIn, $this->fadeOut, $this->level, $this->exact);
    }

    public function withLevel(string $level): self
    {
        return new self($this->layout, $this->labels, $this->pieces, $this->apart, $this->fadeIn, $this->fadeOut, $level, $this->exact);
    }

    /**
     * @param  list<int>  $chapters
     * @return list<Piece>
     *
     * @throws InvalidTime
     */
    private static function ofChapters(array $chapters, int $length): array
    {
        $pieces = [];
        foreach ($chapters as $index => $from) {
            $until = min($chapters[$index + 1] ?? $length, $length);
            if ($until > $from) {
                $pieces[] = new Piece($from, $until);
            }
        }

        return $pieces === [] ? throw InvalidTime::noChapters() : $pieces;
    }

    private static function piece(int $from, int $until, int $rate, int $length): Piece
    {
        if ($from >= $length) {
            throw InvalidTime::beyond(TimePosition::write($from, $rate), TimePosition::write($length, $rate));
        }
        if ($until < $from) {
            throw InvalidTime::turned(TimePosition::write($from, $rate), TimePosition::write($until, $rate));
        }
        if ($until === $from) {
            throw InvalidTime::empty(TimePosition::write($from, $rate));
        }

        return new Piece($from, min($until, $length));
    }
}
