<?php

declare(strict_types=1);

namespace Octavox\Core\Name;

/** A name with fields in braces: {stem}, {track}, {title}, {artist}, {layout}, {rate}, {number}, {label}, {piece}. */
final readonly class NamePattern
{
    public const FIELDS = ['stem', 'track', 'title', 'artist', 'layout', 'rate', 'number', 'label', 'piece'];

    public function __construct(private string $pattern = '{stem}') {}

    /**
     * The name without extension; unknown fields stay as they are written, empty ones vanish.
     *
     * @param  array<string, string>  $values  by the field's name
     */
    public function fill(array $values): string
    {
        $name = (string) preg_replace_callback('/\{([a-z]+)\}/',
            fn (array $match): string => $values[$match[1]] ?? (in_array($match[1], self::FIELDS, true) ? '' : $match[0]), $this->pattern);

        return LegalName::from($name);
    }

    public function has(string $field): bool
    {
        return str_contains($this->pattern, '{'.$field.'}');
    }

    public function __toString(): string
    {
        return $this->pattern;
    }
}
