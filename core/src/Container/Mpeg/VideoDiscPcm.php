<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Mpeg;

use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Sound\Channel;
use Octavox\Core\Sound\Layout;

/**
 * LPCM of video discs in program streams: seven bytes from the sub-stream's number on tell frames, bit depth, rate and channels.
 * Samples of 20 and 24 bits come in groups: the upper 16 bits of two frames, then their lower bits.
 */
final class VideoDiscPcm implements PcmPackets
{
    private const HEADER = 7;

    public function audio(string $packet): ?AudioFormat
    {
        if (strlen($packet) < self::HEADER) {
            return null;
        }
        $facts = ord($packet[5]);
        $bits = [16, 20, 24][$facts >> 6] ?? null;
        $rate = [48000, 96000, 44100, 32000][$facts >> 4 & 3];

        return $bits === null ? null : AudioFormat::pcm(SampleFormat::signed($bits === 16 ? 16 : 24, true), $rate,
            self::layout(($facts & 7) + 1));
    }

    public function samples(string $packet): string
    {
        $audio = $this->audio($packet);
        $data = substr($packet, self::HEADER);
        $bits = [16, 20, 24][ord($packet[5] ?? "\0") >> 6] ?? 16;
        if ($audio === null || $bits === 16) {
            return $data;
        }
        $each = 2 * $audio->channels();
        $group = $each * 2 + ($bits === 24 ? $each : intdiv($each, 2));
        $plain = '';
        foreach (str_split(substr($data, 0, strlen($data) - strlen($data) % $group), max(1, $group)) as $one) {
            for ($index = 0; $index < $each; $index++) {
                $low = $bits === 24 ? $one[2 * $each + $index]
                    : chr(($index % 2 === 0 ? ord($one[2 * $each + ($index >> 1)]) & 0xF0
                    : ord($one[2 * $each + ($index >> 1)]) << 4 & 0xF0));
                $plain .= $one[2 * $index].$one[2 * $index + 1].$low;
            }
        }

        return $plain;
    }

    private static function layout(int $channels): Layout
    {
        [$l, $r, $c, $f] = [Channel::Left, Channel::Right, Channel::Centre, Channel::LowFrequency];

        return match ($channels) {
            4 => Layout::of($l, $r, Channel::SideLeft, Channel::SideRight),
            5 => Layout::of($l, $r, $c, Channel::SideLeft, Channel::SideRight),
            6 => Layout::of($l, $r, $c, Channel::SideLeft, Channel::SideRight, $f),
            default => Layout::undeclared($channels),
        };
    }
}
