<?php

declare(strict_types=1);

namespace Octavox\Demo;

use Octavox\Core\Bytes\BitWriter;

/**
 * H.264 without an encoder: a key frame whose macroblocks are all I_PCM (raw picture elements), then pictures that
 * skip every macroblock and so repeat it. ITU-T H.264, 7.3.
 */
final class StillVideo
{
    /** @var list<string> access units, each part with four bytes of length before it */
    private array $pictures = [];

    /** @var list<int> */
    private array $keys = [];

    private int $frame = 0;

    private readonly string $sequence;

    private readonly string $picture;

    /** Width and height must be multiples of 16. */
    public function __construct(private readonly int $width, private readonly int $height)
    {
        // Baseline profile, level 3.0
        $sps = (new BitWriter)->bits(66, 8)->bits(0xC0, 8)->bits(30, 8);
        self::ue($sps, 0);
        self::ue($sps, 0);
        self::ue($sps, 2);
        self::ue($sps, 1);
        $sps->bits(0, 1);
        self::ue($sps, intdiv($width, 16) - 1);
        self::ue($sps, intdiv($height, 16) - 1);
        $sps->bits(1, 1)->bits(1, 1)->bits(0, 1)->bits(0, 1)->bits(1, 1);
        $this->sequence = "\x67".self::escape($sps->bytes());
        $pps = new BitWriter;
        self::ue($pps, 0);
        self::ue($pps, 0);
        $pps->bits(0, 2);
        self::ue($pps, 0);
        self::ue($pps, 0);
        self::ue($pps, 0);
        $pps->bits(0, 3);
        self::ue($pps, 0);
        self::ue($pps, 0);
        self::ue($pps, 0);
        $pps->bits(1, 1)->bits(0, 2)->bits(1, 1);
        $this->picture = "\x68".self::escape($pps->bytes());
    }

    public function show(\GdImage $image): void
    {
        $slice = new BitWriter;
        self::ue($slice, 0);
        self::ue($slice, 7);
        self::ue($slice, 0);
        $slice->bits(0, 4);
        self::ue($slice, count($this->keys) % 2);
        $slice->bits(0, 2);
        self::ue($slice, 0);
        self::ue($slice, 1);
        for ($y = 0; $y < $this->height; $y += 16) {
            for ($x = 0; $x < $this->width; $x += 16) {
                self::ue($slice, 25);
                $slice->align()->append($this->macroblock($image, $x, $y));
            }
        }
        $slice->bits(1, 1);
        $this->keys[] = count($this->pictures);
        $this->pictures[] = self::part("\x65".self::escape($slice->bytes()));
        $this->frame = 0;
    }

    public function hold(int $pictures): void
    {
        for (; $pictures > 0; $pictures--) {
            $this->frame = ($this->frame + 1) % 16;
            $slice = new BitWriter;
            self::ue($slice, 0);
            self::ue($slice, 5);
            self::ue($slice, 0);
            $slice->bits($this->frame, 4)->bits(0, 2)->bits(0, 1);
            self::ue($slice, 0);
            self::ue($slice, 1);
            self::ue($slice, intdiv($this->width, 16) * intdiv($this->height, 16));
            $slice->bits(1, 1);
            $this->pictures[] = self::part("\x41".self::escape($slice->bytes()));
        }
    }

    /** @return list<string> */
    public function pictures(): array
    {
        return $this->pictures;
    }

    /** @return list<int> */
    public function keys(): array
    {
        return $this->keys;
    }

    /** ISO/IEC 14496-15, 5.2.4.1 */
    public function configuration(): string
    {
        return "\x01".substr($this->sequence, 1, 3)."\xFF\xE1".pack('n', strlen($this->sequence)).$this->sequence."\x01".pack('n',
            strlen($this->picture)).$this->picture;
    }

    /** Luma, then both chromas at half the size: ITU-R BT.601, limited range. */
    private function macroblock(\GdImage $image, int $left, int $top): string
    {
        $luma = '';
        $blue = array_fill(0, 64, 0.0);
        $red = array_fill(0, 64, 0.0);
        for ($y = 0; $y < 16; $y++) {
            for ($x = 0; $x < 16; $x++) {
                $colour = (int) imagecolorat($image, $left + $x, $top + $y);
                $r = $colour >> 16 & 255;
                $g = $colour >> 8 & 255;
                $b = $colour & 255;
                $luma .= chr((int) (16 + 0.257 * $r + 0.504 * $g + 0.098 * $b));
                $place = ($y >> 1) * 8 + ($x >> 1);
                $blue[$place] += (128 - 0.148 * $r - 0.291 * $g + 0.439 * $b) / 4;
                $red[$place] += (128 + 0.439 * $r - 0.368 * $g - 0.071 * $b) / 4;
            }
        }

        return $luma.pack('C*', ...array_map(intval(...), $blue)).pack('C*', ...array_map(intval(...), $red));
    }

    /** Exp-Golomb code: 9.1 */
    private static function ue(BitWriter $bits, int $value): void
    {
        $length = (int) floor(log($value + 1, 2));
        $bits->bits(0, $length)->bits($value + 1, $length + 1);
    }

    /** Emulation prevention: 7.4.1 */
    private static function escape(string $bytes): string
    {
        return (string) preg_replace('/\x00\x00(?=[\x00-\x03])/s', "\0\0\3", $bytes);
    }

    private static function part(string $bytes): string
    {
        return pack('N', strlen($bytes)).$bytes;
    }
}
