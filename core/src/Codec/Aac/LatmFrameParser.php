<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Aac;

use Octavox\Core\Bytes\BitReader;
use Octavox\Core\Bytes\BitWriter;
use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Codec\FrameInfo;
use Octavox\Core\Codec\FrameParser;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Sound\Layout;

/** AAC in LOAS and LATM: ISO/IEC 14496-3, 1.7.2 and 1.7.3; one program, one layer, one unit a frame. */
final class LatmFrameParser implements FrameParser
{
    private string $config = '';

    private int $coreLength = 1024;

    private int $otherDataBits = 0;

    public function headBytes(): int
    {
        return 3;
    }

    public function firstByte(): string
    {
        return "\x56";
    }

    public function at(string $head): ?FrameInfo
    {
        // AudioSyncStream: eleven bits 0x2B7, then thirteen bits of length
        if (strlen($head) < 3 || $head[0] !== "\x56" || (ord($head[1]) & 0xE0) !== 0xE0) {
            return null;
        }
        $bytes = (ord($head[1]) & 0x1F) << 8 | ord($head[2]);

        return $bytes < 2 ? null : new FrameInfo($bytes + 3, $this->coreLength, 'loas');
    }

    /** @throws BytesMissing */
    public function audio(string $frame): AudioFormat
    {
        $this->payload($frame);

        return $this->config === '' ? new AudioFormat(Codec::Aac, 48000, Layout::stereo(), null, '', 1024)
            : AudioSpecificConfig::parse($this->config)->audio();
    }

    public function payload(string $frame): string
    {
        $bits = new BitReader(substr($frame, 3));
        try {
            if ($bits->bits(1) === 0) {
                $this->streamMux($bits);
            }
            $length = 0;
            do {
                $part = $bits->bits(8);
                $length += $part;
            } while ($part === 255);
            $unit = new BitWriter;
            for (; $length >= 4; $length -= 4) {
                $unit->bits($bits->bits(32), 32);
            }
            for (; $length > 0; $length--) {
                $unit->bits($bits->bits(8), 8);
            }

            return $unit->bytes();
        } catch (BytesMissing) {
            return '';
        }
    }

    /**
     * StreamMuxConfig of version 0: ISO/IEC 14496-3, table 1.42.
     *
     * @throws BytesMissing
     */
    private function streamMux(BitReader $bits): void
    {
        if ($bits->bits(1) !== 0) {
            return;
        }
        // Same framing; sub-frames, programs and layers counted from 0
        $bits->bits(1);
        $bits->bits(6 + 4 + 3);
        $config = new BitWriter;
        $copy = function (int $count) use ($bits, $config): int {
            $value = $bits->bits($count);
            $config->bits($value, $count);

            return $value;
        };
        $type = $copy(5);
        $rate = function () use ($copy): void {
            if ($copy(4) === 15) {
                $copy(24);
            }
        };
        $rate();
        $copy(4);
        if ($type === 5 || $type === 29) {
            $rate();
            $copy(5);
        }
        // GASpecificConfig: frame length, core coder, extension
        $short = $copy(1);
        $copy(2);
        $this->coreLength = $short === 1 ? 960 : 1024;
        $this->config = $config->bytes();
        if ($bits->bits(3) === 0) {
            $bits->bits(8);
        }
        $this->otherDataBits = 0;
        if ($bits->bits(1) === 1) {
            do {
                $more = $bits->bits(1);
                $this->otherDataBits = $this->otherDataBits << 8 | $bits->bits(8);
            } while ($more === 1);
        }
        if ($bits->bits(1) === 1) {
            $bits->bits(8);
        }
    }
}
