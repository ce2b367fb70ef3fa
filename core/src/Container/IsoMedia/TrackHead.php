<?php

declare(strict_types=1);

namespace Octavox\Core\Container\IsoMedia;

use Octavox\Core\Media\TrackKind;

/** What the heads of a track say: who it is, and how it is shown. */
final readonly class TrackHead
{
    /**
     * @param  int  $timescale  ticks a second of its media
     * @param  string  $handler  such as `soun`
     * @param  string  $matrix  the nine numbers that place and turn the picture; empty where they change nothing
     * @param  array{float, float}  $shape  width and height in which a picture is shown
     */
    public function __construct(public int $identity, public TrackKind $kind, public int $timescale, public ?string $language,
        public string $handler, public string $matrix = '', public array $shape = [0.0, 0.0]) {}
}
