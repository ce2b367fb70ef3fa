<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Video;

use Octavox\Core\Media\Codec;

/** Width and height from the first bytes of a stream of pictures. */
final class PictureSize
{
    /** @return array{int, int} zeros where they do not show */
    public static function find(Codec $codec, string $bytes): array
    {
        $units = PictureUnits::of($codec);
        if ($units !== null) {
            return $units->size($bytes);
        }
        // ISO/IEC 11172-2 and 13818-2, 6.2.2.1: twelve bits each after the start code of a sequence
        $at = in_array($codec, [Codec::Mpeg1Video, Codec::Mpeg2Video], true) ? strpos($bytes, "\0\0\1\xB3") : false;
        if ($at !== false && strlen($bytes) >= $at + 7) {
            return [ord($bytes[$at + 4]) << 4 | ord($bytes[$at + 5]) >> 4, (ord($bytes[$at + 5]) & 15) << 8 | ord($bytes[$at + 6])];
        }

        return [0, 0];
    }
}
