<?php

declare(strict_types=1);

namespace Octavox\Demo;

/** Writes an AVI file as old capture cards did: Motion JPEG and 16-bit PCM in turn, an index at the end. */
final class CaptureFile
{
    /**
     * @param  list<string>  $pictures  JPEG
     * @param  string  $sound  16-bit stereo, least significant byte first
     */
    public static function write(array $pictures, int $perSecond, int $width, int $height, string $sound, int $rate, string $title): string
    {
        $block = 4;
        $each = intdiv($rate, $perSecond) * $block;
        $movie = 'movi';
        $index = '';
        foreach ($pictures as $number => $picture) {
            foreach (['00dc' => $picture, '01wb' => substr($sound, $number * $each, $each)] as $name => $data) {
                $index .= $name.pack('V3', 0x10, strlen($movie), strlen($data));
                $movie .= self::chunk($name, $data);
            }
        }
        $count = count($pictures);
        $main = pack('V14', intdiv(1_000_000, $perSecond), 0, 0, 0x10, $count, 0, 2, 0, $width, $height, 0, 0, 0, 0);
        $video = self::chunk('strh', 'vidsMJPG'.str_repeat("\0", 12).pack('V7', 1, $perSecond, 0, $count, 0, 0, 0).pack('v4', 0, 0, $width,
            $height)).self::chunk('strf', pack('V3vva4V5', 40, $width, $height, 1, 24, 'MJPG', $width * $height * 3, 0, 0, 0, 0));
        $audio = self::chunk('strh', 'auds'.str_repeat("\0", 16).pack('V7', $block, $rate * $block, 0, intdiv(strlen($sound), $block),
            $each, 0, $block).str_repeat("\0", 8)).self::chunk('strf', pack('vvVVvv', 1, 2, $rate, $rate * $block, $block, 16));
        $body = 'AVI '.self::chunk('LIST',
            'hdrl'.self::chunk('avih', $main).self::chunk('LIST', 'strl'.$video).self::chunk('LIST', 'strl'.$audio))
            .self::chunk('LIST', 'INFO'.self::chunk('INAM', $title."\0")).self::chunk('LIST', $movie).self::chunk('idx1', $index);

        return 'RIFF'.pack('V', strlen($body)).$body;
    }

    private static function chunk(string $name, string $body): string
    {
        return $name.pack('V', strlen($body)).$body.(strlen($body) % 2 === 1 ? "\0" : '');
    }
}
