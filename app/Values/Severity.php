<?php

declare(strict_types=1);

namespace App\Values;

/** How much findings weigh against each other. */
final class Severity
{
    private const WEIGHT = ['stop' => 3, 'warn' => 2, 'note' => 1];

    /** The heaviest of several levels; null where there is none. */
    public static function worst(?string ...$levels): ?string
    {
        $levels = array_filter($levels, fn (?string $level): bool => $level !== null);
        usort($levels, fn (string $a, string $b): int => (self::WEIGHT[$b] ?? 0) <=> (self::WEIGHT[$a] ?? 0));

        return $levels[0] ?? null;
    }
}
