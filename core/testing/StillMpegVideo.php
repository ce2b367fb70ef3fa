<?php

declare(strict_types=1);

namespace Octavox\Core\Testing;

use Octavox\Core\Bytes\BitWriter;

/**
 * MPEG-2 pictures without an encoder, as video discs have them: a key picture of plain blocks of eight by eight, then pictures that repeat
 * it. ISO/IEC 13818-2, 6.2 and annex B; 25 pictures a second.
 */
final class StillMpegVideo
{
    /** Tables B.12 and B.13: codes of the number of bits of a difference of brightness and of colour. */
    private const BRIGHTNESS = ['100', '00', '01', '101', '110', '1110', '11110', '111110', '1111110'];

    private const COLOUR = ['00', '01', '10', '110', '1110', '11110', '111110', '1111110', '11111110'];

    /** Table B.1: the step over all macroblocks of a row but the first, for rows of 22. */
    private const TO_LAST = '0000010010';

    public const WIDTH = 352;

    public const HEIGHT = 288;

    /** A group of pictures that begins with an image and shows it as long as it lasts. @return list<string> */
    public static function group(\GdImage $image, int $pictures, int $number = 0): array
    {
        $group = [self::sequence().self::groupHead($number).self::pictureHead(0, 1).self::plainBlocks($image)];
        for ($index = 1; $index < $pictures; $index++) {
            $group[] = self::pictureHead($index, 2).self::repetition();
        }

        return $group;
    }

    private static function sequence(): string
    {
        $head = (new BitWriter)->bits(self::WIDTH, 12)->bits(self::HEIGHT, 12)->bits(2, 4)->bits(3, 4)->bits(2500, 18)->bits(1, 1)
            ->bits(20, 10)->bits(0, 3)->bytes();
        // Main profile at main level, not progressive, 4:2:0
        $extension = (new BitWriter)->bits(1, 4)->bits(0x48, 8)->bits(0, 1)->bits(1, 2)->bits(0, 2 + 2 + 12)->bits(1, 1)->bits(0,
            8 + 1 + 2 + 5)
            ->bytes();

        return "\0\0\1\xB3$head\0\0\1\xB5$extension";
    }

    private static function groupHead(int $seconds): string
    {
        return "\0\0\1\xB8".(new BitWriter)->bits(0, 1)->bits(intdiv($seconds, 3600), 5)->bits(intdiv($seconds, 60) % 60, 6)->bits(1, 1)
            ->bits($seconds % 60, 6)->bits(0, 6)->bits(1, 1)->bits(0, 1)->align()->bytes();
    }

    private static function pictureHead(int $reference, int $kind): string
    {
        $head = (new BitWriter)->bits($reference, 10)->bits($kind, 3)->bits(0xFFFF, 16);
        $head = $kind === 2 ? $head->bits(0, 1)->bits(7, 3)->bits(0, 1) : $head->bits(0, 1);
        $codes = $kind === 2 ? 0x11FF : 0xFFFF;
        $extension = (new BitWriter)->bits(8, 4)->bits($codes, 16)->bits(0, 2)->bits(3, 2)->bits(1, 1)->bits(1, 1)->bits(0, 5)
            ->bits(0, 1)->bits(1, 1)->bits(0, 1)->align();

        return "\0\0\1\0".$head->align()->bytes()."\0\0\1\xB5".$extension->bytes();
    }

    private static function plainBlocks(\GdImage $image): string
    {
        $small = imagescale($image, intdiv(self::WIDTH, 8), intdiv(self::HEIGHT, 8)) ?: throw new \LogicException('No picture.');
        $slices = '';
        for ($row = 0; $row < intdiv(self::HEIGHT, 16); $row++) {
            $slice = (new BitWriter)->bits(2, 5)->bits(0, 1);
            $before = [128, 128, 128];
            for ($column = 0; $column < intdiv(self::WIDTH, 16); $column++) {
                $slice->bits(3, 2);
                $blocks = self::macroblock($small, 2 * $column, 2 * $row);
                foreach ($blocks as $index => $value) {
                    $part = max(0, $index - 3);
                    self::difference($slice, $value - $before[$part], $part === 0 ? self::BRIGHTNESS : self::COLOUR);
                    $before[$part] = $value;
                }
            }
            $slices .= "\0\0\1".chr($row + 1).$slice->align()->bytes();
        }

        return $slices;
    }

    /** @return list<int> brightness of four blocks, then both differences of colour: ITU-R BT.601 */
    private static function macroblock(\GdImage $image, int $x, int $y): array
    {
        $values = [];
        $sums = [0.0, 0.0];
        foreach ([[0, 0], [1, 0], [0, 1], [1, 1]] as [$right, $down]) {
            $colour = (int) imagecolorat($image, $x + $right, $y + $down);
            [$red, $green, $blue] = [$colour >> 16 & 255, $colour >> 8 & 255, $colour & 255];
            $values[] = (int) round(16 + (65.481 * $red + 128.553 * $green + 24.966 * $blue) / 255);
            $sums[0] += (-37.797 * $red - 74.203 * $green + 112 * $blue) / 1020;
            $sums[1] += (112 * $red - 93.786 * $green - 18.214 * $blue) / 1020;
        }

        return [...$values, (int) round(128 + $sums[0]), (int) round(128 + $sums[1])];
    }

    /** @param  list<string>  $codes */
    private static function difference(BitWriter $slice, int $difference, array $codes): void
    {
        $size = $difference === 0 ? 0 : strlen(decbin(abs($difference)));
        self::code($slice, $codes[$size]);
        $slice->bits($difference < 0 ? $difference + (1 << $size) - 1 : $difference, $size);
        self::code($slice, '10');
    }

    private static function repetition(): string
    {
        $slices = '';
        for ($row = 1; $row <= intdiv(self::HEIGHT, 16); $row++) {
            $slice = (new BitWriter)->bits(2, 5)->bits(0, 1);
            foreach (['1', self::TO_LAST] as $step) {
                // Moved by nothing, and without a difference
                self::code($slice, $step.'001'.'11');
            }
            $slices .= "\0\0\1".chr($row).$slice->align()->bytes();
        }

        return $slices;
    }

    private static function code(BitWriter $bits, string $code): void
    {
        $bits->bits((int) bindec($code), strlen($code));
    }
}
