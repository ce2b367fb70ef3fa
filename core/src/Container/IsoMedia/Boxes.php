<?php

declare(strict_types=1);

namespace Octavox\Core\Container\IsoMedia;

/** Builds boxes: ISO/IEC 14496-12, 4.2. */
final class Boxes
{
    public static function box(string $type, string $body): string
    {
        return pack('N', 8 + strlen($body)).$type.$body;
    }

    public static function full(string $type, int $version, int $flags, string $body): string
    {
        return self::box($type, pack('N', $version << 24 | $flags).$body);
    }

    /** A descriptor of ISO/IEC 14496-1, 7.2.6; its length in four bytes as most writers have it. */
    public static function descriptor(int $tag, string $body): string
    {
        $length = strlen($body);

        return chr($tag).chr(0x80 | $length >> 21 & 0x7F).chr(0x80 | $length >> 14 & 0x7F).chr(0x80 | $length >> 7 & 0x7F)
            .chr($length & 0x7F).$body;
    }
}
