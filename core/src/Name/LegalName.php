<?php

declare(strict_types=1);

namespace Octavox\Core\Name;

/**
 * File names that every common system accepts: no separators, reserved signs or control characters, no reserved device
 * names, no dot or space at the end, letters and their marks joined (Unicode Standard Annex 15, form C), 200 bytes at most so that a
 * number and an extension still fit.
 */
final class LegalName
{
    private const MOST_BYTES = 200;

    /** Names that some systems keep for devices. */
    private const RESERVED = '/^(con|prn|aux|nul|conin\$|conout\$|com[0-9¹²³]|lpt[0-9¹²³])(\.|$)/iu';

    /** A whole file name, whose extension stays however long it is. */
    public static function file(string $wanted): string
    {
        $parts = self::parts($wanted);

        return $parts === null ? self::from($wanted)
            : self::from(mb_strcut($parts[0], 0, self::MOST_BYTES - strlen($parts[1]), 'UTF-8')).$parts[1];
    }

    /** A whole file name of at most so many bytes; only what stands before its extension is shortened. */
    public static function shortened(string $name, int $most): string
    {
        $name = mb_scrub($name, 'UTF-8');
        $parts = strlen($name) <= $most ? null : self::parts($name);

        return $parts === null ? mb_strcut($name, 0, $most, 'UTF-8')
            : mb_strcut($parts[0], 0, $most - strlen($parts[1]), 'UTF-8').$parts[1];
    }

    /** @return ?array{string, string} stem and extension with its dot; null where there is none */
    private static function parts(string $name): ?array
    {
        return preg_match('/^(.+)(\.[a-z0-9]{1,10})$/isu', mb_scrub($name, 'UTF-8'), $parts) === 1 ? [$parts[1], $parts[2]] : null;
    }

    public static function from(string $wanted): string
    {
        $name = Direction::cleaned(mb_scrub($wanted, 'UTF-8'));
        $name = (string) preg_replace('/[\x{00}-\x{1F}\x{7F}-\x{9F}]/u', '', $name);
        $name = mb_check_encoding($name, 'ASCII') ? $name : (string) \Normalizer::normalize($name, \Normalizer::FORM_C);
        $name = strtr($name, ['/' => '-', '\\' => '-', ':' => '-', '*' => '-', '?' => '', '"' => '', '<' => '', '>' => '', '|' => '-']);
        $name = rtrim(mb_strcut(trim($name), 0, self::MOST_BYTES, 'UTF-8'), '. ');
        $name = ltrim($name, '. ');

        return match (true) {
            $name === '' => 'untitled',
            preg_match(self::RESERVED, $name) === 1 => '_'.$name,
            default => $name,
        };
    }
}
