<?php

declare(strict_types=1);

namespace Octavox\Core\Order;

/** One field of a spec: its name, how it is read and written, and what the schema says of it. */
final readonly class SpecField
{
    /** Name of the property that holds it. */
    public string $property;

    /**
     * @param  string  $name  in JSON
     * @param  \Closure(SpecFields): mixed  $reader
     * @param  array<string, mixed>  $schema  JSON Schema 2020-12
     * @param  ?\Closure(never): mixed  $writer  what stands for a value in JSON; null where the value itself does
     * @param  ?\Closure(never, never): mixed  $merger  of the own value and the one beneath; null where the own one counts alone
     */
    public function __construct(public string $name, private \Closure $reader, private array $schema, private ?\Closure $writer = null,
        private ?\Closure $merger = null)
    {
        $this->property = lcfirst(str_replace('_', '', ucwords($name, '_')));
    }

    /** @param  int  $longest  bytes */
    public static function text(string $name, string $says = '', int $longest = 4000): self
    {
        return new self($name, fn (SpecFields $fields): ?string => $fields->text($name, $longest), self::typed('string', $says));
    }

    /** @param  string  $says  what each text is */
    public static function texts(string $name, string $says = ''): self
    {
        return new self($name, fn (SpecFields $fields): ?array => $fields->texts($name),
            self::typed('array', $says, ['items' => ['type' => 'string']]));
    }

    public static function number(string $name, int $least, int $most, string $says = ''): self
    {
        return new self($name, fn (SpecFields $fields): ?int => $fields->number($name, $least, $most),
            self::typed('integer', $says, ['minimum' => $least, 'maximum' => $most]));
    }

    public static function bool(string $name, string $says = ''): self
    {
        return new self($name, fn (SpecFields $fields): ?bool => $fields->bool($name), self::typed('boolean', $says));
    }

    /** @param  class-string<\BackedEnum>  $enum */
    public static function choice(string $name, string $enum, string $says = ''): self
    {
        return new self($name, fn (SpecFields $fields): ?\BackedEnum => $fields->choice($name, $enum),
            self::typed('string', $says, ['enum' => array_map(fn (\BackedEnum $case): int|string => $case->value, $enum::cases())]),
            fn (mixed $value): mixed => $value instanceof \BackedEnum ? $value->value : $value);
    }

    /**
     * @param  array<string, mixed>  $more
     * @return array<string, mixed>
     */
    public static function typed(string $type, string $says, array $more = []): array
    {
        return ['type' => $type, ...$more, ...($says === '' ? [] : ['description' => $says])];
    }

    /** @throws SpecInvalid */
    public function read(SpecFields $fields): mixed
    {
        return ($this->reader)($fields);
    }

    public function written(mixed $value): mixed
    {
        // Both hold values of one property, which has the type of its closures.
        return $value === null || $this->writer === null ? $value : ($this->writer)($value); // @phpstan-ignore argument.type
    }

    public function over(mixed $own, mixed $beneath): mixed
    {
        if ($this->merger === null || $own === null || $beneath === null) {
            return $own ?? $beneath;
        }

        return ($this->merger)($own, $beneath); // @phpstan-ignore argument.type, argument.type
    }

    /**
     * @param  bool  $isLeft  whether null stands for what is left to the source
     * @return array<string, mixed>
     */
    public function schema(bool $isLeft): array
    {
        $schema = $this->schema;
        if ($isLeft) {
            $schema['type'] = [$schema['type'] ?? 'string', 'null'];
            $schema = isset($schema['enum']) && is_array($schema['enum']) ? ['enum' => [...$schema['enum'], null]] + $schema : $schema;
        }

        return $schema;
    }
}
