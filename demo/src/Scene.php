<?php

declare(strict_types=1);

namespace Octavox\Demo;

/** Draws the boat lift: towers, water, a boat at some height, a caption. */
final class Scene
{
    public const WIDTH = 320;

    public const HEIGHT = 192;

    /** @param  float  $height 0 (down) to 1 (up) */
    public static function draw(string $caption, float $height, int $hue): \GdImage
    {
        $image = imagecreatetruecolor(self::WIDTH, self::HEIGHT);
        $colour = fn (int $r, int $g, int $b): int => (int) imagecolorallocate($image, max(0, min(255, $r)), max(0, min(255, $g)),
            max(0, min(255, $b)));
        for ($y = 0; $y < 120; $y++) {
            imageline($image, 0, $y, self::WIDTH, $y, $colour(150 + intdiv($y, 2) + $hue, 180 + intdiv($y, 3), 205 - $hue));
        }
        imagefilledrectangle($image, 0, 120, self::WIDTH, 160, $colour(96, 122, 82));
        imagefilledrectangle($image, 0, 150, self::WIDTH, self::HEIGHT, $colour(64, 98, 108));
        $iron = $colour(58, 52, 58);
        foreach ([70, 236] as $x) {
            imagefilledrectangle($image, $x, 26, $x + 14, 158, $iron);
            for ($y = 30; $y < 154; $y += 16) {
                imageline($image, $x, $y, $x + 14, $y + 12, $colour(120, 110, 110));
                imageline($image, $x + 14, $y, $x, $y + 12, $colour(120, 110, 110));
            }
        }
        imagefilledrectangle($image, 62, 20, 258, 30, $iron);
        $top = (int) (132 - 84 * $height);
        imagefilledrectangle($image, 86, $top + 14, 234, $top + 24, $colour(110, 84, 60));
        imagefilledpolygon($image, [100, $top, 222, $top, 212, $top + 14, 106, $top + 14], $colour(122, 38, 72));
        imagefilledrectangle($image, 130, $top - 12, 196, $top, $colour(232, 214, 170));
        foreach ([92, 228] as $x) {
            imageline($image, $x, 30, $x, $top + 14, $colour(30, 30, 30));
        }
        imagefilledrectangle($image, 0, self::HEIGHT - 20, self::WIDTH, self::HEIGHT, $colour(24, 20, 24));
        imagestring($image, 3, 8, self::HEIGHT - 17, $caption, $colour(245, 238, 222));

        return $image;
    }
}
