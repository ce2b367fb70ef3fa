<?php

declare(strict_types=1);

namespace App\Outside\WebPages;

/** One sound on a page with a player. */
final readonly class PageSound
{
    /**
     * @param  string  $file  its name beside the page
     * @param  string  $under  artist and album; empty where nobody says them
     * @param  list<int>  $waveform  heights from 0 to 100, from the start to the end; none where it is not drawn
     */
    public function __construct(public string $file, public string $type, public string $title, public string $under, public float $seconds,
        public array $waveform) {}

    public function address(): string
    {
        return implode('/', array_map(rawurlencode(...), explode('/', $this->file)));
    }
}
