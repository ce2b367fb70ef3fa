<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

use Octavox\Core\Analysis\Measurements;
use Octavox\Core\Analysis\TriedSizes;
use Octavox\Core\Media\BordersQuery;
use Octavox\Core\Media\PacketBorders;

/** What is known of a source beyond its reading: whoever plans gives what there is, and is told what else is wanted. */
final readonly class SourceKnowledge
{
    /**
     * @param  array<string, PacketBorders>  $borders  by {@see BordersQuery::key()}
     * @param  array<int, Measurements>  $analyses  by the number of the sound track
     * @param  array<int, TriedSizes>  $packed  what stretches took when they were compressed, by the number of the sound track
     * @param  array<string, string>  $silences  pieces that are left of a track when silences are left out, by {@see self::silenceKey()}
     * @param  int  $coverBytes  size of the picture that is asked for as cover
     */
    public function __construct(public array $borders = [], public array $analyses = [], public array $packed = [],
        public array $silences = [], public int $coverBytes = 0) {}

    public function withCover(int $bytes): self
    {
        return new self($this->borders, $this->analyses, $this->packed, $this->silences, $bytes);
    }

    public static function silenceKey(int $track, string $cut): string
    {
        return $track.':'.$cut;
    }
}
