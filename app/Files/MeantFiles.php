<?php

declare(strict_types=1);

namespace App\Files;

/** The files of a shelf that are meant by what was named, and what was named and is not there. */
final readonly class MeantFiles
{
    private const LONGEST_NAME = 80;

    private const MOST_NAMES = 5;

    /**
     * @param  array<array-key, string>  $files  real paths, by their path on the shelf
     * @param  list<string>  $missing  names in playlists that lead to no file of the shelf
     * @param  int  $addresses  of networks, in playlists
     */
    public function __construct(public array $files, public array $missing = [], public int $addresses = 0) {}

    /** What is missing, in a sentence; empty where nothing is. */
    public function says(): string
    {
        $more = count($this->missing) - self::MOST_NAMES;
        $says = $this->missing === [] ? '' : sprintf(' %d that a playlist names %s not on this shelf: %s%s.', count($this->missing),
            count($this->missing) === 1 ? 'is' : 'are', implode(', ', array_map(fn (string $name): string => mb_strimwidth($name, 0,
                self::LONGEST_NAME, '…'), array_slice($this->missing, 0, self::MOST_NAMES))),
            $more > 0 ? " and $more more" : '');

        return $says.($this->addresses === 0 ? '' : sprintf(' %d of its lines are addresses on a network, which are not fetched.',
            $this->addresses));
    }
}
