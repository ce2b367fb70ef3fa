<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

/** What a film must be found to be when it is read back. */
final readonly class WrittenFilm
{
    /**
     * @param  string  $pictures  XXH128 of all pictures one after another
     * @param  list<int>  $late  samples of silence before each sound track
     * @param  list<Written>  $sounds
     * @param  list<string>  $companions  of each subtitle track or time code {@see CompanionCopy::written()}
     */
    public function __construct(public string $pictures, public int $count, public array $late, public array $sounds, public array $companions = [])
    {
    }
}
