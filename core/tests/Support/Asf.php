<?php

declare(strict_types=1);

namespace Octavox\Core\Tests\Support;

/** Writes ASF files after the specification (1.20.3), in the shapes that its reader must know. */
final class Asf
{
    private const SOUND = '409E69F84D5BCF11A8FD00805F5C442B';

    private const PICTURE = 'C0EF19BC4D5BCF11A8FD00805F5C442B';

    private const PLAIN = '0057FB20555BCF11A8FD00805F5C442B';

    private const SPREAD = '50CDC3BF8F61CF118BB200AA00B4E220';

    /**
     * One sound stream, number 3, and perhaps one of pictures, number 1.
     *
     * @param  string  $format  the header as in WAV
     * @param  list<array{0: int, 1: string, 2?: int, 3?: bool}>  $objects  milliseconds, bytes, number of the stream, key
     * @param  string  $bitmap  the header of the pictures, empty where there are none
     */
    public static function file(string $format, array $objects, int $packetBytes = 3200, int $runIn = 3000, int $span = 1,
        int $pieceBytes = 0, string $title = '', bool $unfinished = false, string $bitmap = ''): string
    {
        $packets = self::packets($objects, $packetBytes, $runIn);
        $last = $objects[count($objects) - 1][0];
        $text = $title === '' ? '' : mb_convert_encoding($title."\0", 'UTF-16LE', 'UTF-8');
        $spread = pack('CvvvC', $span, $pieceBytes * 4, $pieceBytes, 1, 0);
        $objectsOfHeader = self::object('A1DCAB8C47A9CF118EE400C00C205365',
            str_repeat("\1", 16).pack('PPPPPPVVVV', 0, 0, count($packets), ($last + $runIn) * 10_000, $last * 10_000, $runIn, 2,
                $packetBytes, $packetBytes, 128_000))
            .self::object('9107DCB7B7A9CF118EE600C00C205365',
                (string) hex2bin(self::SOUND).(string) hex2bin($span > 1 ? self::SPREAD : self::PLAIN).pack('PVVvV', 0, strlen($format),
                    $span > 1 ? strlen($spread) : 0, 3, 0).$format.($span > 1 ? $spread : ''))
            .($bitmap === '' ? ''
                    : self::object('9107DCB7B7A9CF118EE600C00C205365',
                        (string) hex2bin(self::PICTURE).(string) hex2bin(self::PLAIN).pack('PVVvV', 0, 11 + strlen($bitmap), 0, 1,
                            0).pack('VVCv',
                                320, 180, 2, strlen($bitmap)).$bitmap))
            .self::object('3326B2758E66CF11A6D900AA0062CE6C', pack('v5', strlen($text), 0, 0, 0, 0).$text);
        $data = str_repeat("\1", 16).pack('Pv', $unfinished ? 0 : count($packets), 0x0101).implode('', $packets);

        return (string) hex2bin('3026B2758E66CF11A6D900AA0062CE6C').pack('PVCC', 30 + strlen($objectsOfHeader), 3, 1, 2).$objectsOfHeader
            .(string) hex2bin('3626B2758E66CF11A6D900AA0062CE6C').pack('P', $unfinished ? 0 : 24 + strlen($data)).$data;
    }

    /** Bytes of the header that AVI, ASF and WAV share. */
    public static function format(int $tag, int $channels, int $rate, int $bytesPerSecond, int $block, int $bits, string $more = ''): string
    {
        return pack('vvVVvvv', $tag, $channels, $rate, $bytesPerSecond, $block, $bits, strlen($more)).$more;
    }

    /**
     * Packets with several payloads and error correction data in front; objects go on in the next packet where one is full.
     *
     * @param  list<array{0: int, 1: string, 2?: int, 3?: bool}>  $objects
     * @return list<string>
     */
    private static function packets(array $objects, int $packetBytes, int $runIn): array
    {
        $packets = [];
        $body = '';
        $count = 0;
        // Before the payloads: correction, flags, properties, padding, send time, duration, number of payloads
        $head = 3 + 2 + 2 + 6 + 1;
        $close = function () use (&$packets, &$body, &$count, $packetBytes, $head): void {
            $padding = $packetBytes - $head - strlen($body);
            $packets[] = "\x82\0\0".chr(0x11).chr(0x5D).pack('vVv', $padding, 0, 0).chr(0x80 | $count).$body.str_repeat("\0", $padding);
            $body = '';
            $count = 0;
        };
        foreach ($objects as $index => $object) {
            [$time, $data] = $object;
            for ($at = 0; $at < strlen($data);) {
                // Stream, number of the object, place, facts, length
                $overhead = 1 + 1 + 4 + 1 + 8 + 2;
                $room = $packetBytes - $head - strlen($body) - $overhead;
                if ($room < 1 || $count === 60) {
                    $close();

                    continue;
                }
                $part = substr($data, $at, $room);
                $body .= chr(($object[3] ?? true ? 0x80 : 0) | ($object[2] ?? 3)).chr($index & 0xFF).pack('V', $at).chr(8).pack('VV',
                    strlen($data), $time + $runIn).pack('v', strlen($part)).$part;
                $count++;
                $at += strlen($part);
            }
        }
        $close();

        return $packets;
    }

    private static function object(string $name, string $body): string
    {
        return (string) hex2bin($name).pack('P', 24 + strlen($body)).$body;
    }
}
