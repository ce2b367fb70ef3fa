<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

/** Something that was asked for and is not possible, and the nearest that is. {@see PlanWords} says it in words. */
final readonly class Violation
{
    /**
     * @param  array<string, int|float|string>  $values  what was asked for and what stands against it
     * @param  list<int|string>  $nearest  possible values nearest to what was asked, rising; none where there is no such choice
     */
    private function __construct(public ViolationRule $rule, public array $values, public array $nearest = []) {}

    public static function of(ViolationRule $rule, int|float|string ...$values): self
    {
        /** @var array<string, int|float|string> $values */
        return new self($rule, $values);
    }

    /** @param  list<int|string>  $nearest */
    public function nearest(array $nearest): self
    {
        return new self($this->rule, $this->values, $nearest);
    }

    public function at(string $path): CannotPlan
    {
        return CannotPlan::because($this, $path);
    }

    public function number(string $name): int
    {
        return (int) ($this->values[$name] ?? 0);
    }

    public function text(string $name): string
    {
        return (string) ($this->values[$name] ?? '');
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return ['rule' => $this->rule->value, 'values' => (object) $this->values, 'nearest' => $this->nearest];
    }
}
