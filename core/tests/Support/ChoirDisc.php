<?php

declare(strict_types=1);

namespace Octavox\Core\Tests\Support;

use Octavox\Core\Bytes\MemorySink;
use Octavox\Core\Testing\DiscCellParts;
use Octavox\Core\Testing\StillMpegVideo;
use Octavox\Core\Testing\VideoDiscWriter;

/** A small video disc with two titles, whose samples are known: PCM in English, AC-3 in German as a commentary. */
final class ChoirDisc
{
    public const LABEL = 'CHOIR_EVENING';

    /** Frames of PCM in a 25th of a second. */
    public const EACH = 1920;

    /**
     * Pictures of the cells of both titles; the second cell begins no chapter, the third has a clock of its own, the fourth a second
     * angle.
     */
    public const CELLS = [[50, 25, 60, 50], [30]];

    public static function writer(): VideoDiscWriter
    {
        return (new VideoDiscWriter(self::LABEL, [[4, 0x1A0, 2, 'en', 1], [0, 0x180, 2, 'de', 3]]))
            ->title([self::cell(50, 1), self::cell(25, 2, false), self::cell(60, 3, true, 900_000),
                self::cell(50, 4, true, null, self::cell(50, 9))])
            ->title([self::cell(30, 5)]);
    }

    /** Samples of a cell, 16 bits, least significant byte first, two channels. */
    public static function samples(int $pictures, int $seed): string
    {
        mt_srand($seed);

        return pack('v*', ...array_map(fn (): int => mt_rand(0, 65_535), range(1, $pictures * self::EACH * 2)));
    }

    /** What a title holds in PCM. */
    public static function title(int $number): string
    {
        $samples = '';
        foreach (self::CELLS[$number - 1] as $index => $pictures) {
            $samples .= self::samples($pictures, $number === 2 ? 5 : $index + 1);
        }

        return $samples;
    }

    /** The smallest disc that has everything, as an image. */
    public static function small(): string
    {
        $sink = new MemorySink;
        self::smallWriter()->image($sink);

        return $sink->bytes();
    }

    /** The path of an image of the same with the other file system alone, as another program makes it. */
    public static function smallUdf(): string
    {
        $folder = Scratch::folder();
        self::smallWriter()->folder($folder);
        $image = Scratch::path(bin2hex(random_bytes(4)).'.iso');
        exec(sprintf('genisoimage -quiet -dvd-video -udf -o %s %s 2>&1', $image, escapeshellarg($folder)));
        file_put_contents($image, str_replace('CD001', "\0\0\0\0\0", (string) file_get_contents($image)));

        return $image;
    }

    private static function smallWriter(): VideoDiscWriter
    {
        return (new VideoDiscWriter(self::LABEL, [[4, 0x1A0, 2, 'en', 1], [0, 0x180, 2, 'de', 3]]))
            ->title([self::cell(6, 1), self::cell(6, 2, true, 900_000, self::cell(6, 3))]);
    }

    /** A folder that holds the disc. */
    public static function folder(): string
    {
        $folder = Scratch::folder();
        self::writer()->folder($folder);

        return $folder;
    }

    private static function cell(int $pictures, int $seed, bool $begins = true, ?int $clock = null,
        ?DiscCellParts $angle = null): DiscCellParts
    {
        static $image = null;
        $image ??= imagecreatetruecolor(StillMpegVideo::WIDTH, StillMpegVideo::HEIGHT);
        $bytes = implode('', array_map(strrev(...), str_split(self::samples($pictures, $seed), 2)));
        $plain = $frames = [];
        foreach (str_split($bytes, self::EACH * 4) as $index => $part) {
            $plain[] = [$part, 3600 * $index];
        }
        for ($index = 0; $index * 1536 < $pictures * self::EACH; $index++) {
            $frames[] = [ForeignEncoders::ac3([10 + $seed, 30]), $index * 2880];
        }

        return new DiscCellParts(StillMpegVideo::group($image, $pictures), [$plain, $frames], $begins, $clock, $angle);
    }
}
