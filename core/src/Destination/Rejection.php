<?php

declare(strict_types=1);

namespace Octavox\Core\Destination;

/** One thing for which a destination refuses a file, in a sentence, and the nearest that it accepts. */
final readonly class Rejection
{
    /** @param  list<int|string>  $nearest  none where there is no such choice */
    public function __construct(public Rule $rule, public string $says, public array $nearest = []) {}

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return ['rule' => $this->rule->value, 'says' => $this->says, 'nearest' => $this->nearest];
    }
}
