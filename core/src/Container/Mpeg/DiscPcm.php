<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Mpeg;

use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Sound\Channel;
use Octavox\Core\Sound\Layout;

/**
 * LPCM of high-definition discs and disc camcorders in transport streams: four bytes tell length, layout, rate and bit depth
 * (stream type 0x80 with the registration HDMV); an odd number of channels is filled up with an empty one.
 */
final class DiscPcm implements PcmPackets
{
    private const HEADER = 4;

    private const RATES = [1 => 48000, 4 => 96000, 5 => 192000];

    private const BITS = [1 => 16, 2 => 20, 3 => 24];

    public function audio(string $packet): ?AudioFormat
    {
        if (strlen($packet) < self::HEADER) {
            return null;
        }
        $layout = self::layout(ord($packet[2]) >> 4);
        $rate = self::RATES[ord($packet[2]) & 15] ?? null;
        $bits = self::BITS[ord($packet[3]) >> 6] ?? null;

        // 20 bits stand in the upper ones of 24.
        return $layout === null || $rate === null || $bits === null ? null
            : AudioFormat::pcm(SampleFormat::signed($bits === 16 ? 16 : 24, true), $rate, $layout);
    }

    public function samples(string $packet): string
    {
        $audio = $this->audio($packet);
        $data = substr($packet, self::HEADER);
        if ($audio === null || $audio->channels() % 2 === 0) {
            return $data;
        }
        $keep = $audio->frameBytes();
        $frame = $keep + $audio->pcm?->bytes();

        return implode('', array_map(fn (string $one): string => substr($one, 0, $keep),
            str_split(substr($data, 0, strlen($data) - strlen($data) % $frame), max(1, $frame))));
    }

    private static function layout(int $assignment): ?Layout
    {
        [$l, $r, $c, $f] = [Channel::Left, Channel::Right, Channel::Centre, Channel::LowFrequency];
        [$ls, $rs, $bl, $br, $s] = [Channel::SideLeft, Channel::SideRight, Channel::BackLeft, Channel::BackRight, Channel::BackCentre];

        return match ($assignment) {
            1 => Layout::mono(),
            3 => Layout::stereo(),
            4 => Layout::of($l, $r, $c),
            5 => Layout::of($l, $r, $s),
            6 => Layout::of($l, $r, $c, $s),
            7 => Layout::of($l, $r, $ls, $rs),
            8 => Layout::of($l, $r, $c, $ls, $rs),
            9 => Layout::of($l, $r, $c, $ls, $rs, $f),
            10 => Layout::of($l, $r, $c, $ls, $bl, $br, $rs),
            11 => Layout::of($l, $r, $c, $ls, $bl, $br, $rs, $f),
            default => null,
        };
    }
}
