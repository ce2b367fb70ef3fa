<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Alac;

/**
 * The small CAF file by which ALAC packets are handed to the sample library, and taken from it: Apple Core Audio Format Specification 1.0.
 */
final class AlacFile
{
    /** @param  list<string>  $packets */
    public static function write(MagicCookie $cookie, array $packets, int $frames): string
    {
        $sizes = '';
        foreach ($packets as $packet) {
            $sizes .= self::number(strlen($packet));
        }
        $data = implode('', $packets);
        // Flags 1 to 4 stand for 16, 20, 24 and 32 bits.
        $flags = [16 => 1, 20 => 2, 24 => 3, 32 => 4][$cookie->bits] ?? 1;
        $padding = count($packets) * $cookie->frames - $frames;

        return 'caff'.pack('n2', 1, 0)
            .self::chunk('desc', pack('E', $cookie->rate).'alac'.pack('N5', $flags, 0, $cookie->frames, $cookie->channels, 0))
            .self::chunk('kuki', $cookie->bytes)
            .self::chunk('pakt', pack('JJNN', count($packets), $frames, 0, $padding).$sizes)
            .'data'.pack('J', strlen($data) + 4)."\0\0\0\0".$data;
    }

    /**
     * The packets of such a file.
     *
     * @return array{string, list<string>} set-up bytes, packets
     */
    public static function read(string $file): array
    {
        $cookie = '';
        $sizes = '';
        $data = '';
        $count = 0;
        for ($at = 8; $at + 12 <= strlen($file); $at += 12 + $length) {
            $name = substr($file, $at, 4);
            /** @var array{1: int} $number */
            $number = unpack('J', substr($file, $at + 4, 8));
            $length = max(0, $number[1]);
            $body = substr($file, $at + 12, $length);
            if ($name === 'kuki') {
                $cookie = MagicCookie::parse($body)->bytes ?? '';
            } elseif ($name === 'pakt') {
                /** @var array{1: int} $number */
                $number = unpack('J', $body);
                $count = $number[1];
                $sizes = substr($body, 24);
            } elseif ($name === 'data') {
                $data = substr($body, 4);
            }
        }
        $packets = [];
        $place = 0;
        $size = 0;
        for ($at = 0; $at < strlen($sizes) && count($packets) < $count; $at++) {
            $byte = ord($sizes[$at]);
            $size = $size << 7 | $byte & 0x7F;
            if ($byte < 0x80) {
                $packets[] = substr($data, $place, $size);
                $place += $size;
                $size = 0;
            }
        }

        return [$cookie, $packets];
    }

    /** Seven bits a byte, the highest says that more follow. */
    private static function number(int $value): string
    {
        $bytes = chr($value & 0x7F);
        while (($value >>= 7) > 0) {
            $bytes = chr(0x80 | $value & 0x7F).$bytes;
        }

        return $bytes;
    }

    private static function chunk(string $name, string $body): string
    {
        return $name.pack('J', strlen($body)).$body;
    }
}
