<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

use Octavox\Core\Failure;

/** What comes of one line of an order: plans, or why there are none, or what is wanted before there can be. */
final readonly class PlannedLine
{
    /**
     * @param  list<Plan>  $plans  none where it is refused, where anything is wanted, or where the source is right already
     * @param  list<Plan>  $drafts  the same before names were numbered against those of other lines
     */
    private function __construct(public array $plans, public ?Failure $refusal, public MissingFacts $wanted, public array $drafts = []) {}

    /**
     * @param  list<Plan>  $drafts
     * @param  list<Plan>  $plans  with names that no other line has
     */
    public static function planned(array $drafts, array $plans): self
    {
        return new self($plans, null, new MissingFacts, $drafts);
    }

    public static function refused(Failure $failure): self
    {
        return new self([], $failure, new MissingFacts);
    }

    public static function waiting(MissingFacts $wanted): self
    {
        return new self([], null, $wanted);
    }

    public function isWaiting(): bool
    {
        return ! $this->wanted->isEmpty();
    }

    /** Whether nothing is to be made because the source is what was asked for. */
    public function isRight(): bool
    {
        return $this->plans === [] && $this->refusal === null && ! $this->isWaiting();
    }
}
