<?php

declare(strict_types=1);

namespace Octavox\Core\Name;

/**
 * File names that every common system accepts: no separators, reserved signs or control characters, no reserved device
 * names, no dot or space at the end, 200 bytes at most so that a number and an extension still fit.
 */
final class LegalName
{
    private const MOST_BYTES = 200;

    /** Names that some systems keep for devices. */
    private const RESERVED = '/^(con|prn|aux|nul|com[0-9]|lpt[0-9])(\.|$)/i';

    public static function from(string $wanted): string
    {
        $name = mb_scrub($wanted, 'UTF-8');
        $name = (string) preg_replace('/[\x00-\x1F\x7F]/u', '', $name);
        $name = strtr($name, ['/' => '-', '\\' => '-', ':' => '-', '*' => '-', '?' => '', '"' => '', '<' => '', '>' => '', '|' => '-']);
        $name = rtrim(mb_strcut(trim($name), 0, self::MOST_BYTES, 'UTF-8'), '. ');
        $name = ltrim($name, '.');

        return match (true) {
            $name === '' => 'untitled',
            preg_match(self::RESERVED, $name) === 1 => '_'.$name,
            default => $name,
        };
    }
}
