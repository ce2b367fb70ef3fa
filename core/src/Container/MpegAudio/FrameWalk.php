<?php

declare(strict_types=1);

namespace Octavox\Core\Container\MpegAudio;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\Window;
use Octavox\Core\Codec\Mp3\FrameHeader;

/** Goes from frame to frame; where something else stands between, it looks for the next frame. */
final class FrameWalk
{
    /**
     * @param  int  $free  bytes of a frame of free format without padding, 0 in a stream with stated bit rates
     * @param  int  $reach  byte up to which the last frame may reach: a tag may have been written over its end
     * @return iterable<array{int, FrameHeader}> place and header of each whole frame
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public static function over(Window $window, int $at, int $end, int $free, int $reach): iterable
    {
        $first = null;
        while ($at + 4 <= $end) {
            $head = $window->read($at, 4);
            $header = $free === 0 ? FrameHeader::parse($head) : FrameHeader::free($head, $free);
            if ($header !== null && $header->bytes > 4 && ($first === null || $header->continues($first))
                && $at + $header->bytes <= $reach) {
                $first ??= $header;
                yield [$at, $header];
                $at += $header->bytes;

                continue;
            }
            $at = self::next($window, $at + 1, $end);
        }
    }

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private static function next(Window $window, int $at, int $end): int
    {
        while ($at < $end) {
            $length = min(4096, $end - $at);
            $place = strpos($window->read($at, $length), "\xFF");
            if ($place !== false) {
                return $at + $place;
            }
            $at += $length;
        }

        return $end;
    }
}
