<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

/** Takes typed fields out of decoded JSON. */
final readonly class PlanFields
{
    /** @param  array<array-key, mixed>  $fields */
    public function __construct(private array $fields)
    {
    }

    public function text(string $name): string
    {
        $value = $this->fields[$name] ?? null;

        return is_string($value) ? $value : throw self::wrong($name);
    }

    public function number(string $name): int
    {
        $value = $this->fields[$name] ?? null;

        return is_int($value) ? $value : throw self::wrong($name);
    }

    public function truth(string $name): bool
    {
        $value = $this->fields[$name] ?? null;

        return is_bool($value) ? $value : throw self::wrong($name);
    }

    /** @return list<mixed> */
    public function list(string $name): array
    {
        $value = $this->fields[$name] ?? null;

        return is_array($value) ? array_values($value) : throw self::wrong($name);
    }

    public function optional(string $name): ?self
    {
        $value = $this->fields[$name] ?? null;

        return is_array($value) ? new self($value) : null;
    }

    public function isNull(string $name): bool
    {
        return ! isset($this->fields[$name]);
    }

    private static function wrong(string $name): \UnexpectedValueException
    {
        return new \UnexpectedValueException("A plan lacks the field $name.");
    }
}
