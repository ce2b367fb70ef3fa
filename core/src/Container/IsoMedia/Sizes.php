<?php

declare(strict_types=1);

namespace Octavox\Core\Container\IsoMedia;

use Octavox\Core\Sound\Native\Addition;
use Octavox\Core\Sound\Native\LibraryMissing;

/** Sizes of samples as `stsz` has them: 32 bits each, most significant byte first (ISO/IEC 14496-12, 8.7.3). */
final class Sizes
{
    /** Bytes that are taken at once. */
    private const BLOCK = 4 * Addition::MOST;

    /** Bytes from which on vector kernels are faster. */
    private const MANY = 2048;

    /** Whether each is below {@see Addition::MOST}. */
    private const TINY = '/\A(?:\0\0[\0-\x0F].)*+\z/s';

    /** Whether each is below a mebibyte: 4,096 of them stay below {@see self::MODULUS} then. */
    private const SMALL = '/\A(?:\0[\0-\x0F]..)*+\z/s';

    /** Of this modulus a number of 64 bits is the sum of its halves: so are many together. */
    private const MODULUS = 0xFFFFFFFF;

    /**
     * All of them together. Where they are small, two at a time or by vector kernels: taking each apart costs most.
     *
     * @throws LibraryMissing
     */
    public static function sum(string $sizes): int
    {
        $sum = 0;
        for ($at = 0; $at < strlen($sizes); $at += self::BLOCK) {
            $block = substr($sizes, $at, self::BLOCK);
            if (strlen($block) >= self::MANY && preg_match(self::TINY, $block) === 1) {
                $sum += Addition::get()->ofSmall($block);
            } elseif (preg_match(self::SMALL, $block) === 1) {
                $sum += array_sum(unpack('J*', (strlen($block) % 8 === 0 ? '' : "\0\0\0\0").$block) ?: []) % self::MODULUS;
            } else {
                $sum += array_sum(unpack('N*', $block) ?: []);
            }
        }

        return $sum;
    }
}
