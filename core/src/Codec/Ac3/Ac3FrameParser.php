<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Ac3;

use Octavox\Core\Bytes\BitReader;
use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Codec\FrameInfo;
use Octavox\Core\Codec\FrameParser;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Sound\Channel;
use Octavox\Core\Sound\Layout;

/** AC-3 and E-AC-3 frames: ATSC A/52:2018, 5.3 and 5.4; annex E, 2.2 and 2.3. */
final class Ac3FrameParser implements FrameParser
{
    /** ATSC A/52, table 5.6 */
    private const RATES = [48000, 44100, 32000];

    /** kbit/s: ATSC A/52, table 5.18 */
    private const KBPS = [32, 40, 48, 56, 64, 80, 96, 112, 128, 160, 192, 224, 256, 320, 384, 448, 512, 576, 640];

    /** Bitstream identifications above ten are E-AC-3: annex E, 2.1. */
    private const LAST_PLAIN = 10;

    public function headBytes(): int
    {
        return 7;
    }

    public function firstByte(): string
    {
        return "\x0B";
    }

    public function at(string $head): ?FrameInfo
    {
        if (strlen($head) < 7 || $head[0] !== "\x0B" || $head[1] !== "\x77") {
            return null;
        }
        $identification = ord($head[5]) >> 3;
        if ($identification > self::LAST_PLAIN) {
            return $identification > 16 ? null : $this->enhanced($head);
        }
        $rate = ord($head[4]) >> 6;
        $size = ord($head[4]) & 0x3F;
        if ($rate === 3 || $size >= 38) {
            return null;
        }
        // Two-byte words a frame: table 5.18; at 44.1 kHz every other frame is a word longer
        $words = match ($rate) {
            0 => self::KBPS[$size >> 1] * 2,
            2 => self::KBPS[$size >> 1] * 3,
            default => intdiv(self::KBPS[$size >> 1] * 320, 147) + ($size & 1),
        };

        return new FrameInfo(2 * $words, 1536, 'ac3 '.$rate.' '.(ord($head[6]) >> 5));
    }

    /** @throws BytesMissing */
    public function audio(string $frame): AudioFormat
    {
        $bits = new BitReader(substr($frame, 4, 8));
        if (ord($frame[5]) >> 3 > self::LAST_PLAIN) {
            $code = ord($frame[4]) >> 6;
            $rate = $code === 3 ? intdiv(self::RATES[ord($frame[4]) >> 4 & 3] ?? 48000, 2) : self::RATES[$code];
            $mode = ord($frame[4]) >> 1 & 7;

            return new AudioFormat(Codec::Eac3, $rate, self::layout($mode, (ord($frame[4]) & 1) === 1), null, '',
                $this->at($frame)->samples ?? 1536);
        }
        $rate = self::RATES[$bits->bits(2)] ?? 48000;
        $bits->bits(6 + 5 + 3);
        $mode = $bits->bits(3);
        // Mix levels and the surround mode come before the mark of the low frequencies: 5.3.2
        $bits->bits((($mode & 1) !== 0 && $mode !== 1 ? 2 : 0) + (($mode & 4) !== 0 ? 2 : 0) + ($mode === 2 ? 2 : 0));

        return new AudioFormat(Codec::Ac3, $rate, self::layout($mode, $bits->bits(1) === 1), null, '', 1536);
    }

    public function payload(string $frame): string
    {
        return $frame;
    }

    /** The order in which the frame codes its channels: ATSC A/52, table 5.8, low frequencies last. */
    public static function layout(int $mode, bool $low): Layout
    {
        [$l, $r, $c, $ls, $rs, $s] = [Channel::Left, Channel::Right, Channel::Centre, Channel::SideLeft, Channel::SideRight,
            Channel::BackCentre];
        $channels = match ($mode) {
            1 => [$c],
            3 => [$l, $c, $r],
            4 => [$l, $r, $s],
            5 => [$l, $c, $r, $s],
            6 => [$l, $r, $ls, $rs],
            7 => [$l, $c, $r, $ls, $rs],
            default => [$l, $r],
        };

        return Layout::of(...$channels, ...($low ? [Channel::LowFrequency] : []));
    }

    /** Annex E, 2.2.1: the size of the frame in words stands in it, less one. */
    private function enhanced(string $head): FrameInfo
    {
        $words = ((ord($head[2]) & 7) << 8 | ord($head[3])) + 1;
        $code = ord($head[4]) >> 6;
        $blocks = $code === 3 ? 6 : [1, 2, 3, 6][ord($head[4]) >> 4 & 3];
        // A dependent sub-stream adds channels to the frame before.
        $dependent = ord($head[2]) >> 6 === 1;

        return new FrameInfo(2 * $words, $dependent ? 0 : 256 * $blocks, 'eac3 '.$code);
    }
}
