<?php

declare(strict_types=1);

namespace Octavox\Core\Name;

/** What becomes of small pictures (emoji) and control characters, on which some importers choke. */
enum Signs: string
{
    case Keep = 'keep';
    case Remove = 'remove';
    case Spell = 'spell';

    /** Unicode Technical Standard 51, 1.4: what is drawn as a picture, and what changes how the one before is drawn. */
    private const PICTURES = '(?:(?![\x{0023}\x{002A}\x{0030}-\x{0039}\x{00A9}\x{00AE}\x{203C}\x{2049}\x{2122}\x{2139}\x{2194}-\x{21AA}])'
        .'\p{Extended_Pictographic}|[\x{1F1E6}-\x{1F1FF}\x{1F3FB}-\x{1F3FF}])';

    private const JOINERS = '[\x{200D}\x{FE0E}\x{FE0F}\x{20E3}\x{E0020}-\x{E007F}]';

    private const CONTROLS = '[\x{00}-\x{1F}\x{7F}-\x{9F}]';

    /** The text with them as chosen. Control characters that are kept may still be no part of a file's name. */
    public function applied(string $text): string
    {
        $text = mb_scrub($text, 'UTF-8');
        if ($this === self::Keep || ! self::areIn($text)) {
            return $text;
        }
        $bare = (string) preg_replace('/'.self::JOINERS.'/u', '', $text);
        $clean = (string) preg_replace_callback('/'.self::PICTURES.'|'.self::CONTROLS.'/u',
            fn (array $match): string => $this === self::Remove ? '' : ' '.self::spelled($match[0]).' ', $bare);

        return trim((string) preg_replace('/ {2,}/', ' ', $clean));
    }

    /** Whether any are in a text. */
    public static function areIn(string $text): bool
    {
        return self::hasPictures($text) || self::hasControls($text);
    }

    public static function hasPictures(string $text): bool
    {
        return ! mb_check_encoding($text, 'ASCII') && preg_match('/'.self::PICTURES.'/u', mb_scrub($text, 'UTF-8')) === 1;
    }

    public static function hasControls(string $text): bool
    {
        return preg_match('/'.self::CONTROLS.'/u', mb_scrub($text, 'UTF-8')) === 1;
    }

    /** Its name in the Unicode Character Database in small letters; its number where it has none. */
    private static function spelled(string $sign): string
    {
        $number = (int) mb_ord($sign, 'UTF-8');
        $name = $number < 0xA0 ? '' : (string) \IntlChar::charName($number);

        return $name === '' ? sprintf('U+%04X', $number) : strtolower($name);
    }
}
