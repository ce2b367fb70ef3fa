<?php

declare(strict_types=1);

namespace Octavox\Core\Bytes;

/** Tells sources of the same content: a mark that is found soon from a few places, and the proof byte by byte. */
final class ContentMark
{
    /** Bytes of each place that the mark looks at, and how many places there are, evenly over the file. */
    private const PLACE = 4096;

    private const PLACES = 32;

    private const AT_ONCE = 1 << 20;

    /**
     * The same for sources of the same content; hardly ever for others.
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public static function compute(ByteSource $file): string
    {
        $bytes = $file->size();
        $sum = hash_init('xxh128');
        if ($bytes <= self::PLACE * self::PLACES) {
            hash_update($sum, $file->read(0, $bytes));
        } else {
            for ($place = 0; $place < self::PLACES; $place++) {
                hash_update($sum, $file->read(intdiv(($bytes - self::PLACE) * $place, self::PLACES - 1), self::PLACE));
            }
        }

        return $bytes.'-'.hash_final($sum);
    }

    /**
     * Whether two sources hold the same bytes; it stops at the first that differs.
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public static function isSame(ByteSource $first, ByteSource $second): bool
    {
        $isSame = $first->size() === $second->size();
        for ($at = 0; $isSame && $at < $first->size(); $at += self::AT_ONCE) {
            $length = min(self::AT_ONCE, $first->size() - $at);
            $isSame = $first->read($at, $length) === $second->read($at, $length);
        }

        return $isSame;
    }
}
