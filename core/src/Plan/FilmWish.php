<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\OutputFormat;
use Octavox\Core\Container\Video\VideoOutputFormat;
use Octavox\Core\Name\NamePattern;
use Octavox\Core\Sound\Layout;

/** What somebody wants of a film whose picture is kept; whatever is null is left to the source. */
final readonly class FilmWish
{
    /**
     * @param  ?OutputFormat  $sound  how the sound is encoded; null keeps it where the film can carry it
     * @param  ?list<int>  $tracks  numbers of sound tracks; null for all
     * @param  array<int, list<int>>  $joined  by the number of a track: those whose channels come in after its own
     */
    public function __construct(
        public VideoOutputFormat $film,
        public ?OutputFormat $sound,
        public RateControl $setting,
        public string $folder,
        public ?int $rate = null,
        public ?int $bits = null,
        public ?Layout $layout = null,
        public ?array $tracks = null,
        public NamePattern $name = new NamePattern,
        public Existing $existing = Existing::Number,
        public ShapingWish $shaping = new ShapingWish,
        public array $joined = [],
    ) {
    }
}
