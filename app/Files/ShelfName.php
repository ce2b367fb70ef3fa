<?php

declare(strict_types=1);

namespace App\Files;

/**
 * Names of files that are no UTF-8, as pages and addresses can hold them: each byte that is none stands as a sign of the area for private
 * use (Unicode 15, 23.5) and is found again by it.
 */
final class ShelfName
{
    private const FIRST = 0xF700;

    public static function written(string $name): string
    {
        if (mb_check_encoding($name, 'UTF-8')) {
            return $name;
        }
        preg_match_all('/[\x00-\x7F]|[\xC2-\xDF][\x80-\xBF]|\xE0[\xA0-\xBF][\x80-\xBF]|[\xE1-\xEC\xEE\xEF][\x80-\xBF]{2}'
            .'|\xED[\x80-\x9F][\x80-\xBF]|\xF0[\x90-\xBF][\x80-\xBF]{2}|[\xF1-\xF3][\x80-\xBF]{3}'
            .'|\xF4[\x80-\x8F][\x80-\xBF]{2}|./s', $name, $parts);

        return implode('', array_map(fn (string $part): string => mb_check_encoding($part, 'UTF-8') ? $part
            : mb_chr(self::FIRST + ord($part), 'UTF-8'), $parts[0]));
    }

    /** The bytes that were written so; the same where none were. */
    public static function bytes(string $written): string
    {
        return (string) preg_replace_callback('/[\x{F780}-\x{F7FF}]/u',
            fn (array $sign): string => chr((int) mb_ord($sign[0], 'UTF-8') - self::FIRST), $written);
    }
}
