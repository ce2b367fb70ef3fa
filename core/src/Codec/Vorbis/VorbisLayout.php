<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Vorbis;

use Octavox\Core\Sound\Channel;
use Octavox\Core\Sound\Layout;

/** The order of channels in Vorbis, and in Opus with mapping family 1: Vorbis I specification, 4.3.9. */
final class VorbisLayout
{
    /** @return list<Layout> with more than two channels */
    public static function all(): array
    {
        return array_map(self::layout(...), range(3, 8));
    }

    public static function layout(int $channels): Layout
    {
        [$l, $r, $c, $f] = [Channel::Left, Channel::Right, Channel::Centre, Channel::LowFrequency];
        [$ls, $rs, $bl, $br, $s] = [Channel::SideLeft, Channel::SideRight, Channel::BackLeft, Channel::BackRight, Channel::BackCentre];

        return match ($channels) {
            3 => Layout::of($l, $c, $r),
            4 => Layout::of($l, $r, $bl, $br),
            5 => Layout::of($l, $c, $r, $ls, $rs),
            6 => Layout::of($l, $c, $r, $ls, $rs, $f),
            7 => Layout::of($l, $c, $r, $ls, $rs, $s, $f),
            8 => Layout::of($l, $c, $r, $ls, $rs, $bl, $br, $f),
            default => Layout::undeclared($channels),
        };
    }
}
