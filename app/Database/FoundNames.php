<?php

declare(strict_types=1);

namespace App\Database;

/** How rows are found by a part of their names: three letters or more through what the database remembers of all names (FTS5). */
final class FoundNames
{
    /** Fewer letters are not remembered: only the newest rows are gone through for them. */
    public const LEAST_LETTERS = 3;

    public const NEWEST = 5000;

    public static function isShort(string $find): bool
    {
        return mb_strlen($find) < self::LEAST_LETTERS;
    }

    /** The text as a phrase of FTS5, 3.2: whatever is in it means itself. */
    public static function phrase(string $find): string
    {
        return '"'.str_replace('"', '""', $find).'"';
    }

    /** A pattern for `like … escape '\'`. */
    public static function pattern(string $find): string
    {
        return '%'.addcslashes($find, '%_\\').'%';
    }

    /** Number behind which the newest lie, which alone are looked through for less than three letters. */
    public static function from(mixed $highest): int
    {
        return (is_int($highest) ? $highest : 0) - self::NEWEST;
    }
}
