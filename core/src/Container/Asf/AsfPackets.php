<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Asf;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\Cursor;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\Window;

/** The data object: packets of one size, each with payloads that are media objects or parts of them (section 5.2). */
final readonly class AsfPackets
{
    private const MOST_OBJECT = 16 * 1024 * 1024;

    /**
     * @param  int  $from  where the first packet stands
     * @param  int  $packetBytes  of each
     */
    public function __construct(private ByteSource $bytes, private int $from, private int $end, private int $packetBytes) {}

    public function count(): int
    {
        return $this->packetBytes > 0 ? intdiv(max(0, $this->end - $this->from), $this->packetBytes) : 0;
    }

    /**
     * The objects of one stream; those that lost a part are left out.
     *
     * @return iterable<AsfObject>
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function objects(int $stream, int $fromPacket = 0): iterable
    {
        $window = new Window($this->bytes, $this->end, max(262144, $this->packetBytes));
        $held = '';
        $wanted = 0;
        $time = 0;
        $whole = true;
        for ($index = $fromPacket, $count = $this->count(); $index < $count; $index++) {
            foreach ($this->payloads($window->read($this->from + $index * $this->packetBytes, $this->packetBytes), $stream) as [$offset,
                $size, $at, $data, $key]) {
                if ($offset === 0) {
                    [$held, $wanted, $time, $whole] = ['', $size, $at, $key];
                }
                if ($offset !== strlen($held) || $size !== $wanted || $size > self::MOST_OBJECT) {
                    continue;
                }
                $held .= $data;
                if (strlen($held) >= $wanted) {
                    yield new AsfObject($time, substr($held, 0, $wanted), $whole);
                    [$held, $wanted] = ['', -1];
                }
            }
        }
    }

    /** @return list<array{int, int, int, string, bool}> place in the object, its size, its time, bytes, key */
    private function payloads(string $packet, int $stream): array
    {
        $payloads = [];
        try {
            $cursor = new Cursor($packet);
            $flags = $cursor->u8();
            if (($flags & 0x80) !== 0) {
                // Error correction data in front
                $cursor->skip($flags & 0x0F);
                $flags = $cursor->u8();
            }
            $properties = $cursor->u8();
            $length = self::number($cursor, $flags >> 5 & 3);
            self::number($cursor, $flags >> 1 & 3);
            $padding = self::number($cursor, $flags >> 3 & 3);
            $cursor->skip(6);
            $end = ($length > 0 ? min($length, strlen($packet)) : strlen($packet)) - $padding;
            $several = ($flags & 1) !== 0;
            $shape = $several ? $cursor->u8() : 1;
            for ($left = $several ? $shape & 0x3F : 1; $left > 0; $left--) {
                $first = $cursor->u8();
                $number = $first & 0x7F;
                $key = ($first & 0x80) !== 0;
                self::number($cursor, $properties >> 4 & 3);
                $offset = self::number($cursor, $properties >> 2 & 3);
                $facts = $cursor->take(self::number($cursor, $properties & 3));
                $bytes = $several ? self::number($cursor, $shape >> 6) : $end - $cursor->position();
                $data = $cursor->take($bytes);
                if ($number !== $stream) {
                    continue;
                }
                if (strlen($facts) >= 8) {
                    $facts = new Cursor($facts);
                    $payloads[] = [$offset, $facts->u32le(), $facts->u32le(), $data, $key];
                } elseif (strlen($facts) === 1) {
                    // Several whole objects, each with its length before it; the place is the time of the first
                    $payloads = [...$payloads, ...self::compressed($data, $offset, ord($facts), $key)];
                }
            }
        } catch (BytesMissing) {
            // What was whole counts.
        }

        return $payloads;
    }

    /**
     * @return list<array{int, int, int, string, bool}>
     *
     * @throws BytesMissing
     */
    private static function compressed(string $data, int $time, int $step, bool $key): array
    {
        $payloads = [];
        $cursor = new Cursor($data);
        while ($cursor->remaining() > 1) {
            $length = $cursor->u8();
            $payloads[] = [0, $length, $time, $cursor->take($length), $key];
            $time += $step;
        }

        return $payloads;
    }

    /**
     * Section 5.2.2: no byte, one, two or four.
     *
     * @throws BytesMissing
     */
    private static function number(Cursor $cursor, int $kind): int
    {
        return match ($kind) {
            0 => 0,
            1 => $cursor->u8(),
            2 => $cursor->u16le(),
            default => $cursor->u32le(),
        };
    }
}
