<?php

declare(strict_types=1);

namespace Octavox\Core\Tests\Support;

/** Times of packets in MPEG streams. */
final class TimeStamp
{
    /** 33 bits with their marker bits: ISO/IEC 13818-1, 2.4.3.7. */
    public static function of(int $prefix, int $ticks): string
    {
        return chr($prefix << 4 | ($ticks >> 30 & 7) << 1 | 1).pack('n', ($ticks >> 15 & 0x7FFF) << 1 | 1).pack('n',
            ($ticks & 0x7FFF) << 1 | 1);
    }
}
