<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

use Octavox\Core\Name\NumberedName;

/** Gives each result of an order a name of its own: two sources of one name in a batch never overwrite each other. */
final class NameAllocator
{
    /** @var array<string, true> paths, in small letters: some systems do not tell letters apart by their case */
    private array $taken = [];

    /** @var array<string, int> the last number that was given to a path */
    private array $numbers = [];

    public function allocate(Plan $plan): Plan
    {
        $key = mb_strtolower($plan->path());
        $number = $this->numbers[$key] ?? 1;
        do {
            $target = $plan->target->named(NumberedName::write($plan->name(), $number));
            $path = mb_strtolower($target->path());
            $number++;
        } while (isset($this->taken[$path]));
        $this->numbers[$key] = $number;
        $this->taken[$path] = true;

        return $plan->withTarget($target);
    }
}
