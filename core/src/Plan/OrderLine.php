<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

use Octavox\Core\Order\OutputSpec;
use Octavox\Core\Reading\Reading;

/** One source of an order, what is asked of it alone, and what is known of it beyond its reading. */
final readonly class OrderLine
{
    /**
     * @param  SourceLabel  $label  what it is called and where it lay, for the names of its results
     * @param  ?list<Plan>  $planned  what came of all this before, as {@see PlannedLine::$drafts} told it; null where nobody remembers
     * @param  ?int  $number  for names that count; null for its place among those that are planned
     */
    public function __construct(public Reading $source, public OutputSpec $changes = new OutputSpec,
        public SourceKnowledge $knowledge = new SourceKnowledge, public SourceLabel $label = new SourceLabel,
        public ?array $planned = null, public ?int $number = null) {}

    public function knowing(SourceKnowledge $knowledge): self
    {
        return new self($this->source, $this->changes, $knowledge, $this->label, null, $this->number);
    }
}
