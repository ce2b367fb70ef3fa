<?php

declare(strict_types=1);

namespace Octavox\Core\Container\IsoMedia;

/** QuickTime's numbers for languages (QuickTime File Format Specification, "Language Code Values"), the common ones. */
final class QuickTimeLanguage
{
    private const LETTERS = [0 => 'eng', 1 => 'fra', 2 => 'deu', 3 => 'ita', 4 => 'nld', 5 => 'swe', 6 => 'spa', 7 => 'dan', 8 => 'por',
        9 => 'nor', 11 => 'jpn', 13 => 'fin', 14 => 'ell', 23 => 'kor', 25 => 'pol', 26 => 'hun', 32 => 'rus', 33 => 'zho'];

    /** Null where the number is not known. */
    public static function letters(int $code): ?string
    {
        return self::LETTERS[$code] ?? null;
    }
}
