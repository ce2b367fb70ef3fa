<?php

declare(strict_types=1);

namespace Octavox\Core\Container;

/** Languages as three letters of ISO 639-2, from two or three letters with or without a region. */
final class LanguageCode
{
    /** ISO 639-1 to ISO 639-2/T, for the languages that films come in most. */
    private const TWO = [
        'ar' => 'ara', 'bg' => 'bul', 'ca' => 'cat', 'cs' => 'ces', 'cy' => 'cym', 'da' => 'dan', 'de' => 'deu', 'el' => 'ell', 'en' => 'eng', 'es' => 'spa', 'et' => 'est',
        'eu' => 'eus', 'fa' => 'fas', 'fi' => 'fin', 'fr' => 'fra', 'ga' => 'gle', 'gl' => 'glg', 'he' => 'heb', 'hi' => 'hin', 'hr' => 'hrv', 'hu' => 'hun', 'id' => 'ind',
        'is' => 'isl', 'it' => 'ita', 'ja' => 'jpn', 'ko' => 'kor', 'lt' => 'lit', 'lv' => 'lav', 'nb' => 'nob', 'nl' => 'nld', 'nn' => 'nno', 'no' => 'nor', 'pl' => 'pol',
        'pt' => 'por', 'ro' => 'ron', 'ru' => 'rus', 'sk' => 'slk', 'sl' => 'slv', 'sr' => 'srp', 'sv' => 'swe', 'th' => 'tha', 'tr' => 'tur', 'uk' => 'ukr', 'vi' => 'vie', 'zh' => 'zho',
    ];

    /** Null where none is told. */
    public static function letters(string $code): ?string
    {
        $base = strtolower(explode('-', trim($code, " \0"))[0]);

        return match (true) {
            isset(self::TWO[$base]) => self::TWO[$base],
            preg_match('/^[a-z]{3}$/', $base) === 1 && ! in_array($base, ['und', 'mis', 'zxx', 'mul', 'qaa'], true) => $base,
            default => null,
        };
    }
}
