<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

use Octavox\Core\Media\BordersQuery;

/** What planning a source still wants to know, collected while it plans. */
final class MissingFacts
{
    /** @var array<string, BordersQuery> by their keys */
    public array $borders = [];

    /** @var array<int, int> numbers of the sound tracks that are to be analysed, by themselves */
    public array $analyses = [];

    /** @var array<string, array{int, string}> number of the track and how silences are cut, by {@see SourceKnowledge::silenceKey()} */
    public array $silences = [];

    public function isEmpty(): bool
    {
        return $this->borders === [] && $this->analyses === [] && $this->silences === [];
    }
}
