<?php

declare(strict_types=1);

namespace Octavox\Core\Container\IsoMedia;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\Cursor;

/**
 * An elementary stream descriptor: ISO/IEC 14496-1, 7.2.6.5 to 7.2.6.7. It stands in `esds` boxes, and as the set-up of AAC in other
 * files.
 */
final readonly class ElementaryDescriptor
{
    /** Tags: ISO/IEC 14496-1, table 1. */
    public const STREAM = 3;

    private const DECODER = 4;

    private const SPECIFIC = 5;

    /** Descriptors within descriptors. */
    private const DEEPEST = 4;

    /**
     * @param  int  $objectType  ISO/IEC 14496-1, table 5, and the MP4 registration authority; 0 where none is told
     * @param  string  $specific  what the decoder needs, empty where nothing is told
     */
    private function __construct(public int $objectType, public string $specific) {}

    /**
     * @param  string  $bytes  from the tag of the first descriptor on; what is cut short is read as far as it goes
     *
     * @throws BytesMissing
     */
    public static function read(string $bytes): self
    {
        return self::within(new Cursor($bytes), new self(0, ''), 0);
    }

    /** @throws BytesMissing */
    private static function within(Cursor $cursor, self $found, int $depth): self
    {
        while ($cursor->remaining() >= 2 && $depth < self::DEEPEST) {
            $tag = $cursor->u8();
            $body = new Cursor($cursor->take(min(self::length($cursor), $cursor->remaining())));
            if ($tag === self::STREAM && $body->remaining() >= 3) {
                // Two bytes of identity; flags tell of another stream it depends on, an address, and a clock.
                $flags = $body->skip(2)->u8();
                $body->skip(min($body->remaining(), ($flags & 0x80) !== 0 ? 2 : 0));
                $body->skip(min($body->remaining(), ($flags & 0x40) !== 0 && $body->remaining() > 0 ? $body->u8() : 0));
                $body->skip(min($body->remaining(), ($flags & 0x20) !== 0 ? 2 : 0));
                $found = self::within($body, $found, $depth + 1);
            } elseif ($tag === self::DECODER && $body->remaining() > 0) {
                $found = new self($body->u8(), $found->specific);
                // The kind of stream, the size of its buffer, and two bit rates stand between.
                $found = self::within($body->skip(min($body->remaining(), 12)), $found, $depth + 1);
            } elseif ($tag === self::SPECIFIC) {
                $found = new self($found->objectType, $body->rest());
            }
        }

        return $found;
    }

    /**
     * One to four bytes of seven bits: 8.3.3.
     *
     * @throws BytesMissing
     */
    private static function length(Cursor $cursor): int
    {
        $length = 0;
        for ($byte = 0x80, $count = 0; ($byte & 0x80) !== 0 && $count < 4 && $cursor->remaining() > 0; $count++) {
            $byte = $cursor->u8();
            $length = $length << 7 | $byte & 0x7F;
        }

        return $length;
    }
}
