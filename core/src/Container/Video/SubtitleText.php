<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Video;

/**
 * The plain text of subtitles as each container codes it: 3GPP TS 26.245, 5.17; QuickTime, "Text Sample Data"; Matroska, "SRT Subtitles".
 */
final class SubtitleText
{
    public static function isPlain(string $coding): bool
    {
        return in_array($coding, ['tx3g', 'text', 'S_TEXT/UTF8', 'S_TEXT/ASCII'], true);
    }

    /** Null where the coding is not plain text; empty where nothing is shown. */
    public static function read(string $coding, string $data): ?string
    {
        if (! self::isPlain($coding)) {
            return null;
        }
        if ($coding[0] === 'S') {
            // What players of Matroska take for italics and colour is no text.
            return trim((string) preg_replace('~</?(?:b|i|u|s|font[^<>]*)>~i', '', mb_scrub(rtrim($data, "\0"), 'UTF-8')));
        }
        $length = strlen($data) < 2 ? 0 : ord($data[0]) << 8 | ord($data[1]);
        $text = substr($data, 2, $length);
        if (str_starts_with($text, "\xFE\xFF")) {
            $text = (string) mb_convert_encoding(substr($text, 2), 'UTF-8', 'UTF-16BE');
        }

        return trim(mb_scrub($text, 'UTF-8'));
    }

    /** A sample of `tx3g` that shows a text. */
    public static function timedText(string $text): string
    {
        $text = mb_strcut($text, 0, 65_000, 'UTF-8');

        return pack('n', strlen($text)).$text;
    }
}
