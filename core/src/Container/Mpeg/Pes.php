<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Mpeg;

/** One packet of an elementary stream, or the start of one: ISO/IEC 13818-1, 2.4.3.6. */
final readonly class Pes
{
    /** Times have 33 bits. */
    public const WRAP = 1 << 33;

    /**
     * @param  int  $track  which stream it belongs to
     * @param  ?int  $pts  ticks of 90 kHz, 33 bits; null where not stated
     * @param  int  $at  where it stands in the file
     */
    public function __construct(public int $track, public string $data, public ?int $pts, public ?int $dts, public int $at) {}

    /**
     * @param  string  $bytes  from the start code on
     * @return ?array{int, ?int, ?int} where the payload begins, and both times; null where it is no such packet
     */
    public static function header(string $bytes): ?array
    {
        if (strlen($bytes) < 9 || ! str_starts_with($bytes, "\0\0\1")) {
            return null;
        }
        // ISO/IEC 13818-1, 2.4.3.7: streams without these fields
        if (in_array(ord($bytes[3]), [0xBC, 0xBE, 0xBF, 0xF0, 0xF1, 0xF2, 0xF8, 0xFF], true)) {
            return [6, null, null];
        }
        if ((ord($bytes[6]) & 0xC0) !== 0x80) {
            return self::first($bytes);
        }
        $flags = ord($bytes[7]) >> 6;
        $length = 9 + ord($bytes[8]);
        $pts = $flags >= 2 && strlen($bytes) >= 14 ? self::time($bytes, 9) : null;
        $dts = $flags === 3 && strlen($bytes) >= 19 ? self::time($bytes, 14) : null;

        return [$length, $pts, $dts];
    }

    /**
     * The older header: ISO/IEC 11172-1, 2.4.3.3.
     *
     * @return ?array{int, ?int, ?int}
     */
    private static function first(string $bytes): ?array
    {
        $at = 6;
        while ($at < strlen($bytes) && $at < 22 && $bytes[$at] === "\xFF") {
            $at++;
        }
        if (strlen($bytes) < $at + 11) {
            return null;
        }
        $at += (ord($bytes[$at]) & 0xC0) === 0x40 ? 2 : 0;

        return match (ord($bytes[$at]) >> 4) {
            2 => [$at + 5, self::time($bytes, $at), null],
            3 => [$at + 10, self::time($bytes, $at), self::time($bytes, $at + 5)],
            default => [$at + 1, null, null],
        };
    }

    private static function time(string $bytes, int $at): int
    {
        return (ord($bytes[$at]) >> 1 & 7) << 30 | ord($bytes[$at + 1]) << 22 | (ord($bytes[$at + 2]) >> 1) << 15
            | ord($bytes[$at + 3]) << 7 | ord($bytes[$at + 4]) >> 1;
    }
}
