<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Matroska;

/** Builds EBML elements: RFC 8794, 4 to 7. */
final class Elements
{
    public static function master(int $id, string ...$children): string
    {
        return self::bytes($id, implode('', $children));
    }

    public static function bytes(int $id, string $body): string
    {
        return self::id($id).self::size(strlen($body)).$body;
    }

    public static function number(int $id, int $value): string
    {
        $bytes = ltrim(pack('J', $value), "\0");

        return self::bytes($id, $bytes === '' ? "\0" : $bytes);
    }

    public static function signed(int $id, int $value): string
    {
        return self::bytes($id, pack('J', $value));
    }

    public static function real(int $id, float $value): string
    {
        return self::bytes($id, pack('E', $value));
    }

    public static function id(int $id): string
    {
        return ltrim(pack('N', $id), "\0");
    }

    /** A length in as few bytes as it needs. */
    public static function size(int $size): string
    {
        for ($length = 1; $length < 8 && $size >= (1 << 7 * $length) - 1; $length++);

        return substr(pack('J', $size | 1 << 7 * $length), 8 - $length);
    }

    /** A length in eight bytes, so that it can be filled in later. */
    public static function longSize(int $size): string
    {
        return pack('J', $size | 1 << 56);
    }
}
