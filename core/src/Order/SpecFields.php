<?php

declare(strict_types=1);

namespace Octavox\Core\Order;

/** Takes optional, typed fields out of a decoded spec and refuses what is not among them. */
final readonly class SpecFields
{
    /**
     * @param  array<array-key, mixed>  $fields
     * @param  list<string>  $known
     *
     * @throws SpecInvalid for a field that is not known
     */
    public function __construct(private array $fields, array $known, private string $within = '')
    {
        foreach (array_keys($fields) as $name) {
            if (! in_array($name, $known, true)) {
                throw SpecInvalid::unknown($within.$name);
            }
        }
    }

    /** @throws SpecInvalid */
    public function text(string $name, int $longest = 4000): ?string
    {
        $value = $this->fields[$name] ?? null;

        return $value === null || is_string($value) && mb_check_encoding($value, 'UTF-8') && strlen($value) <= $longest ? $value
            : throw $this->wrong($name, 'a text');
    }

    /** @throws SpecInvalid */
    public function number(string $name, int $least, int $most): ?int
    {
        $value = $this->fields[$name] ?? null;

        return $value === null || is_int($value) && $value >= $least && $value <= $most ? $value
            : throw $this->wrong($name, sprintf('a whole number from %d to %d', $least, $most));
    }

    /** @throws SpecInvalid */
    public function bool(string $name): ?bool
    {
        $value = $this->fields[$name] ?? null;

        return $value === null || is_bool($value) ? $value : throw $this->wrong($name, 'true or false');
    }

    /**
     * @template T of \BackedEnum
     *
     * @param  class-string<T>  $enum
     * @return ?T
     *
     * @throws SpecInvalid
     */
    public function choice(string $name, string $enum): ?\BackedEnum
    {
        $value = $this->text($name);
        $words = implode(', ', array_map(fn (\BackedEnum $case): string => (string) $case->value, $enum::cases()));

        return $value === null ? null : $enum::tryFrom($value) ?? throw $this->wrong($name, 'one of '.$words);
    }

    /**
     * @return ?list<string>
     *
     * @throws SpecInvalid
     */
    public function texts(string $name): ?array
    {
        $value = $this->fields[$name] ?? null;
        $texts = is_array($value) ? array_values(array_filter($value, is_string(...))) : [];

        return $value === null ? null
            : (is_array($value) && count($texts) === count($value) ? $texts : throw $this->wrong($name, 'a list of texts'));
    }

    /**
     * @return ?array<array-key, mixed>
     *
     * @throws SpecInvalid
     */
    public function map(string $name): ?array
    {
        $value = $this->fields[$name] ?? null;

        return $value === null || is_array($value) ? $value : throw $this->wrong($name, 'an object or a list');
    }

    /**
     * @param  list<string>  $known
     * @return ?self the fields of an object within
     *
     * @throws SpecInvalid
     */
    public function inner(string $name, array $known): ?self
    {
        $document = $this->map($name);

        return $document === null ? null : new self($document, $known, $this->within.$name.'.');
    }

    public function wrong(string $name, string $wanted): SpecInvalid
    {
        return SpecInvalid::field($this->within.$name, $wanted);
    }
}
