<?php

declare(strict_types=1);

namespace Octavox\Core\Container\MpegAudio;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Codec\Mp3\FrameHeader;

/** Finds how long the frames of a stream of free format are: the way to the next header, confirmed by the two after it. */
final class FreeFormat
{
    /** A frame of layer II or III at 640 kbit/s and 8 kHz. */
    private const LONGEST = 11520;

    private const SHORTEST = 24;

    /** Frames that a file holds at least; the shorter ones of it can be the whole file. */
    private const LEAST = 8;

    /** Frames that must stand where the length says: quiet PCM is full of what looks like a header. */
    private const CONFIRMED = 12;

    /**
     * @return int bytes of a frame without padding, 0 where no stream of free format begins here
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public static function frameBytes(ByteSource $bytes, int $at): int
    {
        $span = $bytes->read($at, max(0, min(self::LONGEST * (self::CONFIRMED + 1), $bytes->size() - $at)));
        $first = FrameHeader::free($span, 0);
        if ($first === null) {
            return 0;
        }
        $padding = (FrameHeader::free($span, 1)->bytes ?? 1) - 1;
        for ($next = self::SHORTEST; $next <= self::LONGEST + 4; $next++) {
            $next = strpos($span, "\xFF", min($next, strlen($span)));
            if ($next === false) {
                return 0;
            }
            if ($next - $padding >= self::SHORTEST && self::fits($span, $first, $next - $padding)) {
                return $next - $padding;
            }
        }

        return 0;
    }

    private static function fits(string $span, FrameHeader $first, int $frameBytes): bool
    {
        $at = 0;
        for ($frame = 0; $frame <= self::CONFIRMED; $frame++) {
            if ($frame >= self::LEAST && $at + 4 > strlen($span)) {
                // All that there is.
                return true;
            }
            $header = FrameHeader::free(substr($span, $at, 4), $frameBytes);
            if ($header === null || ! $header->continues($first)) {
                return false;
            }
            $at += $header->bytes;
        }

        return true;
    }
}
