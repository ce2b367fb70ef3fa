<?php

declare(strict_types=1);

namespace Octavox\Core\Container\ProgramStream;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\Window;
use Octavox\Core\Container\Mpeg\Pes;
use Octavox\Core\Container\Mpeg\PesSource;

/** Goes from packet to packet of a program stream; after damage it looks for the next start code. */
final class ProgramPackets implements PesSource
{
    private const SPAN = 65_536;

    /** Stream numbers: pack, system header, end, private stream 1 (ISO/IEC 13818-1, table 2-22). */
    private const PACK = 0xBA;

    private const END = 0xB9;

    private const PRIVATE = 0xBD;

    /** Bytes of the heads that stand before the data of private sub-streams: number, frames, place of the first. */
    private const SUB_HEAD = 4;

    public function __construct(private readonly ByteSource $bytes) {}

    public function bytes(): ByteSource
    {
        return $this->bytes;
    }

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function packets(int $from, int $until, ?int $track = null): iterable
    {
        $size = $this->bytes->size();
        $window = new Window($this->bytes, $size, self::SPAN);
        $at = $from === 0 ? 0 : $this->next($window, $from, $until);
        while ($at + 14 <= $until) {
            $head = $window->read($at, 14);
            if (! str_starts_with($head, "\0\0\1") || ord($head[3]) < self::END) {
                $at = $this->next($window, $at + 1, $until);

                continue;
            }
            $id = ord($head[3]);
            if ($id === self::PACK) {
                // 2.5.3.3 with stuffing; the older pack has twelve bytes.
                $at += (ord($head[4]) & 0xC0) === 0x40 ? 14 + (ord($head[13]) & 7) : 12;

                continue;
            }
            if ($id === self::END) {
                $at += 4;

                continue;
            }
            $length = 6 + (ord($head[4]) << 8 | ord($head[5]));
            $sound = $id >= 0xC0 && $id <= 0xDF || $id === self::PRIVATE;
            if (($sound || $id >= 0xE0 && $id <= 0xEF) && $at + $length <= $size
                && ($track === null || $id === ($track >= 0x100 ? self::PRIVATE : $track))) {
                $packet = $this->packet($window->read($at, $length), $id, $at);
                if ($packet !== null && ($track === null || $packet->track === $track)) {
                    yield $packet;
                }
            }
            $at += $length;
        }
    }

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function payload(int $track): iterable
    {
        foreach ($this->packets(0, $this->bytes->size(), $track) as $packet) {
            yield $packet->data;
        }
    }

    private function packet(string $bytes, int $id, int $at): ?Pes
    {
        $header = Pes::header($bytes);
        if ($header === null || $header[0] >= strlen($bytes)) {
            return null;
        }
        $data = substr($bytes, $header[0]);
        if ($id !== self::PRIVATE) {
            return new Pes($id, $data, $header[1], $header[2], $at);
        }
        $sub = ord($data[0]);

        // Samples that are not compressed keep the head: it tells their format.
        return new Pes(0x100 | $sub, $sub >= 0xA0 ? $data : substr($data, self::SUB_HEAD), $header[1], $header[2], $at);
    }

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function next(Window $window, int $at, int $until): int
    {
        while ($at + 4 < $until) {
            $bytes = $window->read($at, min(4096, $until - $at));
            $place = strpos($bytes, "\0\0\1");
            if ($place !== false && $place + 4 <= strlen($bytes)) {
                if (ord($bytes[$place + 3]) >= self::END) {
                    return $at + $place;
                }
                $at += $place + 3;

                continue;
            }
            $at += max(1, strlen($bytes) - 3);
        }

        return $until;
    }
}
