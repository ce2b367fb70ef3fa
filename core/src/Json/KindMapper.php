<?php

declare(strict_types=1);

namespace Octavox\Core\Json;

/**
 * Small values of several kinds ↔ what stands for them in JSON: a word for the kind, and their public properties by name, in the order of
 * the constructor. What is null is left out; what is missing where it is read is empty, as another release may not have written it.
 *
 * @template T of object
 */
final readonly class KindMapper
{
    /** @param  array<string, class-string<T>>  $classes  by the word that stands for each */
    public function __construct(private array $classes) {}

    /** @return list<string> the words of all kinds */
    public function all(): array
    {
        return array_keys($this->classes);
    }

    /** @param  T  $kind */
    public function word(object $kind): string
    {
        $word = array_search($kind::class, $this->classes, true);

        return is_string($word) ? $word : throw new \LogicException($kind::class.' has no word; add it to its registry.');
    }

    /**
     * @param  T  $kind
     * @return array<string, int|float|string|list<int|string>>
     */
    public function values(object $kind): array
    {
        $values = [];
        foreach (get_object_vars($kind) as $name => $value) {
            if (is_bool($value)) {
                $values[$name] = (int) $value;
            } elseif (is_int($value) || is_float($value) || is_string($value)) {
                $values[$name] = $value;
            } elseif (is_array($value)) {
                $values[$name] = self::words($value);
            }
        }

        return $values;
    }

    /**
     * @param  array<array-key, mixed>  $values
     * @return ?T null where the word stands for nothing
     */
    public function build(string $word, array $values): ?object
    {
        $class = $this->classes[$word] ?? null;
        if ($class === null) {
            return null;
        }
        $given = [];
        foreach ((new \ReflectionClass($class))->getConstructor()?->getParameters() ?? [] as $parameter) {
            $given[] = self::value($parameter, $values[$parameter->getName()] ?? null);
        }

        return new $class(...$given);
    }

    /** @return int|float|string|bool|list<int|string>|null */
    private static function value(\ReflectionParameter $parameter, mixed $value): int|float|string|bool|array|null
    {
        $type = (string) $parameter->getType();
        if ($value === null && $parameter->allowsNull()) {
            return null;
        }

        return match (ltrim($type, '?')) {
            'int' => is_int($value) || is_float($value) ? (int) $value : 0,
            'float' => is_int($value) || is_float($value) ? (float) $value : 0.0,
            'bool' => $value === true || $value === 1,
            'array' => is_array($value) ? self::words($value) : [],
            'string' => is_string($value) || is_int($value) || is_float($value) ? (string) $value : '',
            default => is_int($value) || is_float($value) ? $value : null,
        };
    }

    /**
     * @param  array<array-key, mixed>  $values
     * @return list<int|string>
     */
    private static function words(array $values): array
    {
        return array_values(array_filter($values, fn (mixed $one): bool => is_string($one) || is_int($one)));
    }
}
