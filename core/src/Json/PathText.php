<?php

declare(strict_types=1);

namespace Octavox\Core\Json;

/**
 * Names of files in JSON, which is text, while a name is any bytes but a slash and a zero: one that is no UTF-8 is written as a zero,
 * which no name can hold, and its bytes in base 64 (RFC 4648, 4).
 */
final class PathText
{
    private const MARK = "\0";

    public static function encode(string $path): string
    {
        return preg_match('//u', $path) === 1 ? $path : self::MARK.base64_encode($path);
    }

    public static function decode(string $text): string
    {
        $bytes = str_starts_with($text, self::MARK) ? base64_decode(substr($text, 1), true) : false;

        return $bytes === false ? $text : $bytes;
    }

    /**
     * The same for every text in a document.
     *
     * @param  array<array-key, mixed>  $document
     * @return array<array-key, mixed>
     */
    public static function all(array $document): array
    {
        array_walk_recursive($document, function (mixed &$value): void {
            $value = is_string($value) ? self::encode($value) : $value;
        });

        return $document;
    }
}
