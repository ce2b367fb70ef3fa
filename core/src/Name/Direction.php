<?php

declare(strict_types=1);

namespace Octavox\Core\Name;

/** Characters that turn the direction of what is written (Unicode Standard Annex 9, 2): they can make a name look like another one. */
final class Direction
{
    private const CHARACTERS = '/[\x{061C}\x{200E}\x{200F}\x{202A}-\x{202E}\x{2066}-\x{2069}]/u';

    /** The name without them. */
    public static function cleaned(string $name): string
    {
        return (string) preg_replace(self::CHARACTERS, '', $name);
    }

    /** The name with each of them told by its number. */
    public static function shown(string $name): string
    {
        return (string) preg_replace_callback(self::CHARACTERS, fn (array $match): string => sprintf('[U+%04X]', mb_ord($match[0])),
            mb_scrub($name, 'UTF-8'));
    }
}
