<?php

declare(strict_types=1);

namespace App\Lists;

/** Numbers of rows as a page sends them: a list, or one text with commas between. */
final class LineNumbers
{
    private const MOST = 20_000;

    /** @return list<int> each once; what is no number is left out */
    public static function read(mixed $input): array
    {
        $given = is_array($input) ? $input : explode(',', is_scalar($input) ? (string) $input : '');
        $numbers = array_map(fn (mixed $one): int => is_scalar($one) ? (int) $one : 0, array_slice($given, 0, self::MOST));

        return array_values(array_unique(array_filter($numbers, fn (int $one): bool => $one > 0)));
    }
}
