<?php

declare(strict_types=1);

namespace App\Outside\Pages;

use App\Outside\Players\Player;

/** A player that is plugged in, as its page shows it. */
final readonly class PluggedPlayer
{
    /** How many files a page lists: as many as one answer of a form may tick. */
    private const MOST_SHOWN = 500;

    /**
     * @param  array<string, int>  $files  bytes of each, by its path
     * @param  int  $open  results that are still to be written on it
     * @param  int  $failed  results that could not be
     */
    public function __construct(public Player $player, public array $files, public int $open, public int $failed) {}

    /** @return array<string, int> those that are listed */
    public function shown(): array
    {
        return array_slice($this->files, 0, self::MOST_SHOWN, true);
    }

    /** How many more there are. */
    public function beyond(): int
    {
        return max(0, count($this->files) - self::MOST_SHOWN);
    }

    public function used(): int
    {
        return array_sum($this->files);
    }

    public function capacity(): int
    {
        return $this->player->capacity();
    }

    public function free(): int
    {
        return $this->player->free($this->files);
    }

    /** How full it is, 0 to 100. */
    public function percent(): int
    {
        return $this->capacity() === 0 ? 100 : (int) min(100, ceil(100 * $this->used() / $this->capacity()));
    }
}
