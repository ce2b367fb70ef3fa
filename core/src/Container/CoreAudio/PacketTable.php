<?php

declare(strict_types=1);

namespace Octavox\Core\Container\CoreAudio;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\Cursor;

/** Sizes of packets that differ, and what of their sound is presented: Apple Core Audio Format Specification 1.0, "Packet Table Chunk". */
final readonly class PacketTable
{
    private const HEADER = 24;

    /** @param  int  $frames  samples a channel that are presented, after $priming */
    private function __construct(public int $count, public int $frames, public int $priming, private string $sizes) {}

    /** @throws BytesMissing */
    public static function read(string $bytes, string $name, int $at): self
    {
        $cursor = new Cursor($bytes, $name, $at);
        $count = $cursor->u64be();

        return new self(min($count, strlen($bytes) - self::HEADER), $cursor->u64be(), $cursor->u32be(), substr($bytes, self::HEADER));
    }

    /** @return iterable<int> bytes of each packet: seven bits a byte, the highest says that more follow */
    public function sizes(): iterable
    {
        $size = 0;
        $given = 0;
        for ($at = 0, $end = strlen($this->sizes); $at < $end && $given < $this->count; $at++) {
            $byte = ord($this->sizes[$at]);
            $size = ($size << 7 | $byte & 0x7F) & 0xFFFFFFF;
            if ($byte < 0x80) {
                yield $size;
                $size = 0;
                $given++;
            }
        }
    }
}
