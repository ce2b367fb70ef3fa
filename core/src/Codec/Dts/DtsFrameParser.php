<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Dts;

use Octavox\Core\Bytes\BitReader;
use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Codec\FrameInfo;
use Octavox\Core\Codec\FrameParser;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Sound\Channel;
use Octavox\Core\Sound\Layout;

/** DTS core frames, 16 bits a word, most significant byte first: ETSI TS 102 114, 5.3 and 5.4. */
final class DtsFrameParser implements FrameParser
{
    /** ETSI TS 102 114, table 5-5: Hz */
    private const RATES = [1 => 8000, 2 => 16000, 3 => 32000, 6 => 11025, 7 => 22050, 8 => 44100, 11 => 12000, 12 => 24000, 13 => 48000];

    /** ETSI TS 102 114, table 5-4: channels of the arrangements that few players have */
    private const CHANNELS = [10 => 6, 11 => 6, 12 => 6, 13 => 7, 14 => 8, 15 => 8];

    public function headBytes(): int
    {
        return 12;
    }

    public function firstByte(): string
    {
        return "\x7F";
    }

    /** @throws BytesMissing */
    public function at(string $head): ?FrameInfo
    {
        if (strlen($head) < 12 || ! str_starts_with($head, "\x7F\xFE\x80\x01")) {
            return null;
        }
        $bits = new BitReader(substr($head, 4));
        $bits->bits(1 + 5 + 1);
        $blocks = $bits->bits(7) + 1;
        $bytes = $bits->bits(14) + 1;
        $mode = $bits->bits(6);
        $rate = $bits->bits(4);

        return $bytes < 96 || $blocks < 6 || ! isset(self::RATES[$rate]) ? null : new FrameInfo($bytes, 32 * $blocks, $mode.' '.$rate);
    }

    /** @throws BytesMissing */
    public function audio(string $frame): AudioFormat
    {
        $bits = new BitReader(substr($frame, 4, 10));
        $bits->bits(1 + 5 + 1 + 7 + 14);
        $mode = $bits->bits(6);
        $rate = self::RATES[$bits->bits(4)] ?? 48000;
        // Bit rate and seven flags lie between: 5.3.1
        $bits->bits(5 + 1 + 1 + 1 + 1 + 1 + 3 + 1 + 1);
        $low = $bits->bits(2);

        return new AudioFormat(Codec::Dts, $rate, self::layout($mode, $low === 1 || $low === 2), null, '',
            $this->at($frame)->samples ?? 512);
    }

    public function payload(string $frame): string
    {
        return $frame;
    }

    /** ETSI TS 102 114, table 5-4; arrangements that no name of channels fits are told by their number alone. */
    private static function layout(int $mode, bool $low): Layout
    {
        if ($mode > 9) {
            return Layout::undeclared((self::CHANNELS[$mode] ?? 2) + ($low ? 1 : 0));
        }
        [$l, $r, $c, $ls, $rs, $s] = [Channel::Left, Channel::Right, Channel::Centre, Channel::SideLeft, Channel::SideRight,
            Channel::BackCentre];
        $channels = match ($mode) {
            0 => [$c],
            5 => [$c, $l, $r],
            6 => [$l, $r, $s],
            7 => [$c, $l, $r, $s],
            8 => [$l, $r, $ls, $rs],
            9 => [$c, $l, $r, $ls, $rs],
            default => [$l, $r],
        };

        return Layout::of(...$channels, ...($low ? [Channel::LowFrequency] : []));
    }
}
