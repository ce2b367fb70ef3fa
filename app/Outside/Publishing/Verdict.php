<?php

declare(strict_types=1);

namespace App\Outside\Publishing;

/** What a host says to a file that it is offered. */
final readonly class Verdict
{
    /** @param  list<string>  $reasons  why it is refused, a sentence each; none where it is accepted */
    private function __construct(public ?Episode $episode, public array $reasons) {}

    public static function accepted(Episode $episode): self
    {
        return new self($episode, []);
    }

    /** @param  non-empty-list<string>  $reasons */
    public static function refused(array $reasons): self
    {
        return new self(null, $reasons);
    }

    public function isAccepted(): bool
    {
        return $this->episode !== null;
    }
}
