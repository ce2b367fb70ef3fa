<?php

declare(strict_types=1);

namespace Octavox\Core\Media;

/** Languages as three letters of ISO 639-2, those for terminology, from two or three letters with or without a region. */
final class LanguageCode
{
    /** ISO 639-1, ISO 639-2/T and the English name, for the languages that videos come in most. */
    private const NAMES = [
        'ar' => ['ara', 'Arabic'], 'bg' => ['bul', 'Bulgarian'], 'ca' => ['cat', 'Catalan'], 'cs' => ['ces', 'Czech'],
        'cy' => ['cym', 'Welsh'], 'da' => ['dan', 'Danish'],
        'de' => ['deu', 'German'], 'el' => ['ell', 'Greek'], 'en' => ['eng', 'English'], 'es' => ['spa', 'Spanish'],
        'et' => ['est', 'Estonian'], 'eu' => ['eus', 'Basque'],
        'fa' => ['fas', 'Persian'], 'fi' => ['fin', 'Finnish'], 'fr' => ['fra', 'French'], 'ga' => ['gle', 'Irish'],
        'gd' => ['gla', 'Scottish Gaelic'], 'gl' => ['glg', 'Galician'],
        'he' => ['heb', 'Hebrew'], 'hi' => ['hin', 'Hindi'], 'hr' => ['hrv', 'Croatian'], 'hu' => ['hun', 'Hungarian'],
        'hy' => ['hye', 'Armenian'], 'id' => ['ind', 'Indonesian'],
        'is' => ['isl', 'Icelandic'], 'it' => ['ita', 'Italian'], 'ja' => ['jpn', 'Japanese'], 'ka' => ['kat', 'Georgian'],
        'ko' => ['kor', 'Korean'], 'lt' => ['lit', 'Lithuanian'],
        'lv' => ['lav', 'Latvian'], 'mk' => ['mkd', 'Macedonian'], 'ms' => ['msa', 'Malay'], 'nb' => ['nob', 'Norwegian Bokmål'],
        'nl' => ['nld', 'Dutch'], 'nn' => ['nno', 'Norwegian Nynorsk'],
        'no' => ['nor', 'Norwegian'], 'pl' => ['pol', 'Polish'], 'pt' => ['por', 'Portuguese'], 'ro' => ['ron', 'Romanian'],
        'ru' => ['rus', 'Russian'], 'sk' => ['slk', 'Slovak'],
        'sl' => ['slv', 'Slovenian'], 'sq' => ['sqi', 'Albanian'], 'sr' => ['srp', 'Serbian'], 'sv' => ['swe', 'Swedish'],
        'ta' => ['tam', 'Tamil'], 'th' => ['tha', 'Thai'],
        'tr' => ['tur', 'Turkish'], 'uk' => ['ukr', 'Ukrainian'], 'ur' => ['urd', 'Urdu'], 'vi' => ['vie', 'Vietnamese'],
        'zh' => ['zho', 'Chinese'],
    ];

    /** ISO 639-2/B, the older letters of libraries, where they are others. */
    private const OF_LIBRARIES = [
        'alb' => 'sqi', 'arm' => 'hye', 'baq' => 'eus', 'bur' => 'mya', 'chi' => 'zho', 'cze' => 'ces', 'dut' => 'nld', 'fre' => 'fra',
        'geo' => 'kat', 'ger' => 'deu',
        'gre' => 'ell', 'ice' => 'isl', 'mac' => 'mkd', 'mao' => 'mri', 'may' => 'msa', 'per' => 'fas', 'rum' => 'ron', 'slo' => 'slk',
        'tib' => 'bod', 'wel' => 'cym',
    ];

    /** Null where none is told. */
    public static function letters(string $code): ?string
    {
        $base = strtolower(explode('-', trim($code, " \0"))[0]);

        return match (true) {
            isset(self::NAMES[$base]) => self::NAMES[$base][0],
            isset(self::OF_LIBRARIES[$base]) => self::OF_LIBRARIES[$base],
            preg_match('/^[a-z]{3}$/', $base) === 1 && ! in_array($base, ['und', 'mis', 'zxx', 'mul', 'qaa'], true) => $base,
            default => null,
        };
    }

    /** What somebody calls a language, by letters or by name; null where it is neither. */
    public static function said(string $language): ?string
    {
        foreach (self::NAMES as [$letters, $name]) {
            if (mb_strtolower($name) === mb_strtolower(trim($language))) {
                return $letters;
            }
        }

        return self::letters($language);
    }

    /** The English name, or the letters where it is none of those that are known. */
    public static function name(string $letters): string
    {
        return array_column(self::NAMES, 1, 0)[self::letters($letters) ?? ''] ?? $letters;
    }

    /** The letters of libraries, as Matroska has them. */
    public static function ofLibraries(string $letters): string
    {
        return array_search($letters, self::OF_LIBRARIES, true) ?: $letters;
    }
}
