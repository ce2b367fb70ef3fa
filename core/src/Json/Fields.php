<?php

declare(strict_types=1);

namespace Octavox\Core\Json;

/** Takes typed fields out of decoded JSON. */
final readonly class Fields
{
    /** @param  array<array-key, mixed>  $fields */
    public function __construct(private array $fields) {}

    /**
     * @throws \UnexpectedValueException
     */
    public function text(string $name): string
    {
        $value = $this->fields[$name] ?? null;

        return is_string($value) ? PathText::decode($value) : throw self::wrong($name);
    }

    /**
     * @throws \UnexpectedValueException
     */
    public function number(string $name): int
    {
        $value = $this->fields[$name] ?? null;

        return is_int($value) ? $value : throw self::wrong($name);
    }

    /**
     * @throws \UnexpectedValueException
     */
    public function bool(string $name): bool
    {
        $value = $this->fields[$name] ?? null;

        return is_bool($value) ? $value : throw self::wrong($name);
    }

    /**
     * @throws \UnexpectedValueException
     */
    public function float(string $name): float
    {
        $value = $this->fields[$name] ?? null;

        return is_int($value) || is_float($value) ? (float) $value : throw self::wrong($name);
    }

    public function floatOrNull(string $name): ?float
    {
        return $this->isNull($name) ? null : $this->float($name);
    }

    public function numberOrNull(string $name): ?int
    {
        return $this->isNull($name) ? null : $this->number($name);
    }

    public function textOrNull(string $name): ?string
    {
        return $this->isNull($name) ? null : $this->text($name);
    }

    /**
     * @return array<array-key, mixed>
     *
     * @throws \UnexpectedValueException
     */
    public function map(string $name): array
    {
        $value = $this->fields[$name] ?? null;

        return is_array($value) ? $value : throw self::wrong($name);
    }

    /**
     * Bytes that are told in hexadecimal.
     *
     * @throws \UnexpectedValueException
     */
    public function bytes(string $name): string
    {
        $text = $this->text($name);

        return strlen($text) % 2 === 0 && preg_match('/^[0-9a-f]*$/Di', $text) === 1 ? (string) hex2bin($text) : throw self::wrong($name);
    }

    /** @return list<int> */
    public function numbers(string $name): array
    {
        return array_map(fn (mixed $value): int => is_int($value) ? $value : throw self::wrong($name), $this->list($name));
    }

    /** @return list<self> */
    public function each(string $name): array
    {
        return array_map(fn (mixed $value): self => new self(is_array($value) ? $value : throw self::wrong($name)), $this->list($name));
    }

    /**
     * @return list<mixed>
     *
     * @throws \UnexpectedValueException
     */
    public function list(string $name): array
    {
        $value = $this->fields[$name] ?? null;

        return is_array($value) ? array_values($value) : throw self::wrong($name);
    }

    /** @return array<array-key, mixed> as they are */
    public function all(): array
    {
        return $this->fields;
    }

    public function optional(string $name): ?self
    {
        $value = $this->fields[$name] ?? null;

        return is_array($value) ? new self($value) : null;
    }

    /** @return array<string, int|float|string> */
    public function scalars(): array
    {
        $scalars = [];
        foreach ($this->fields as $name => $value) {
            if (is_string($name) && (is_string($value) || is_int($value) || is_float($value))) {
                $scalars[$name] = $value;
            }
        }

        return $scalars;
    }

    public function isNull(string $name): bool
    {
        return ! isset($this->fields[$name]);
    }

    private static function wrong(string $name): \UnexpectedValueException
    {
        return new \UnexpectedValueException("The field $name is missing or of another kind.");
    }
}
