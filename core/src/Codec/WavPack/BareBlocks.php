<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\WavPack;

/**
 * WavPack blocks as Matroska holds them, without most of their header: number of samples, then for each block flags and sum of the
 * samples, and its length where there are several (Matroska codec mappings, A_WAVPACK4).
 */
final class BareBlocks
{
    /** Flags of a block: WavPack 4 & 5 Binary File / Block Format, 2.0. */
    private const FIRST = 0x800;

    private const LAST = 0x1000;

    private const SUMMED = 0x10000000;

    /** A part of a block's metadata: the sum of all its bytes, header included, in two or four bytes. */
    private const SUM = "\x2F";

    /** Of blocks whose container names no other. */
    public const VERSION = 0x403;

    private const UNKNOWN = 0xFFFFFFFF;

    /**
     * With the headers that a decoder wants. The sums of whole blocks are of headers that are gone, so they are left out.
     *
     * @param  int  $start  first sample
     * @return string empty where these are no such blocks
     */
    public static function whole(string $bare, int $start, int $version): string
    {
        $blocks = '';
        /** @var array{n: int}|false $head */
        $head = strlen($bare) < 12 ? false : unpack('Vn', $bare);
        for ($at = 4, $end = strlen($bare); $head !== false && $at + 8 <= $end; $at += $length) {
            /** @var array{f: int, c: int} $one */
            $one = unpack('Vf/Vc', $bare, $at);
            $at += 8;
            $alone = ($one['f'] & self::FIRST) !== 0 && ($one['f'] & self::LAST) !== 0;
            /** @var array{1: int} $size */
            $size = $alone || $at + 4 > $end ? [1 => $end - $at] : unpack('V', $bare, $at);
            $at += $alone ? 0 : 4;
            $length = $size[1];
            if ($length > $end - $at) {
                return '';
            }
            $body = substr($bare, $at, $length);
            $flags = $one['f'];
            if (($flags & self::SUMMED) !== 0) {
                $body = self::withoutSum($body);
                $flags &= ~self::SUMMED;
            }
            $blocks .= 'wvpk'.pack('VvCCVVVVV', BlockHeader::BYTES - 8 + strlen($body), $version, $start >> 32 & 0xFF, 0, self::UNKNOWN,
                $start & 0xFFFFFFFF, $head['n'], $flags, $one['c']).$body;
        }

        return $blocks;
    }

    /** It stands last, with one byte that names it and one for its length in words. */
    private static function withoutSum(string $body): string
    {
        return match (true) {
            substr($body, -6, 2) === self::SUM."\2" => substr($body, 0, -6),
            substr($body, -4, 2) === self::SUM."\1" => substr($body, 0, -4),
            default => $body,
        };
    }
}
