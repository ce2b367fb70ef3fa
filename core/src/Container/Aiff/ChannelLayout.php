<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Aiff;

use Octavox\Core\Sound\Channel;
use Octavox\Core\Sound\Layout;

/**
 * The layout tag and bitmap that AIFC (`CHAN`), CAF (`chan`) and QuickTime (`chan`) share:
 * Apple Core Audio Format Specification 1.0, "Channel Layout Chunk".
 */
final class ChannelLayout
{
    /** The tag that says: the bitmap tells. Its bits are those of the WAV mask. */
    public const BY_BITMAP = 0x10000;

    /** Null where it is not told in a way known here. */
    public static function read(int $tag, int $bitmap): ?Layout
    {
        if ($tag === self::BY_BITMAP) {
            return $bitmap === 0 ? null : Layout::fromMask($bitmap, substr_count(decbin($bitmap), '1'));
        }
        [$l, $r, $c, $f] = [Channel::Left, Channel::Right, Channel::Centre, Channel::LowFrequency];
        [$ls, $rs, $s, $bl, $br] = [Channel::SideLeft, Channel::SideRight, Channel::BackCentre, Channel::BackLeft, Channel::BackRight];

        return match ($tag >> 16) {
            100 => Layout::mono(),
            101, 102 => Layout::stereo(),
            108 => Layout::of($l, $r, $bl, $br),
            113 => Layout::of($l, $r, $c),
            114 => Layout::of($c, $l, $r),
            115 => Layout::of($l, $r, $c, $s),
            116 => Layout::of($c, $l, $r, $s),
            117 => Layout::of($l, $r, $c, $ls, $rs),
            118 => Layout::of($l, $r, $ls, $rs, $c),
            119 => Layout::of($l, $c, $r, $ls, $rs),
            120 => Layout::of($c, $l, $r, $ls, $rs),
            121 => Layout::of($l, $r, $c, $f, $ls, $rs),
            122 => Layout::of($l, $r, $ls, $rs, $c, $f),
            123 => Layout::of($l, $c, $r, $ls, $rs, $f),
            124 => Layout::of($c, $l, $r, $ls, $rs, $f),
            128 => Layout::of($l, $r, $c, $f, $ls, $rs, $bl, $br),
            default => null,
        };
    }
}
