<?php

declare(strict_types=1);

namespace Octavox\Core\Bytes\Native;

use Octavox\Core\Bytes\Stretch;

/**
 * Writes strings and stretches of other files at once (pwritev(2)): what is only copied goes from file to file without passing through PHP.
 */
final class Gathering
{
    /** limits.h: IOV_MAX */
    private const MOST_PARTS = 1024;

    /**
     * That are written at once: for more the system takes pages of memory as large, which it must look for, and a guest its host must give
     * it.
     */
    private const MOST_BYTES = 1_048_576;

    private ?Handle $target = null;

    /** `char[]`: strings on their way */
    private ?\FFI\CData $room = null;

    /** Place of the room in memory. */
    private int $roomAt = 0;

    /** `struct part[]`, which is `struct iovec` of sys/uio.h */
    private ?\FFI\CData $parts = null;

    private int $count = 0;

    private int $bytes = 0;

    private int $used = 0;

    private ?Mapping $mapping = null;

    /**
     * @param  string  $path  of the file that receives them
     * @param  int  $most  bytes of strings that are written at once
     */
    public function __construct(string $path, private readonly int $most)
    {
        $this->target = Handle::open($path, Handle::WRITING);
        $this->room = System::calls()?->new("char[$most]");
        $this->parts = System::calls()?->new('struct part['.self::MOST_PARTS.']');
        $this->roomAt = $this->room === null ? 0 : (int) System::calls()?->cast('intptr_t', \FFI::addr($this->room[0]))?->cdata;
    }

    /**
     * How many bytes it has written: fewer than there are where it cannot on this system, where a source has become shorter, or where the
     * disk is full.
     *
     * @param  list<string|Stretch>  $parts  strings, no more than agreed, and stretches of files
     * @param  int  $at  where they shall stand
     */
    public function write(array $parts, int $at): int
    {
        if ($this->target === null || $this->room === null || $this->parts === null) {
            return 0;
        }
        $done = 0;
        foreach ($parts as $part) {
            for ($taken = 0, $of = $part instanceof Stretch ? $part->length : strlen($part); $taken < $of; $taken += $more) {
                $more = $this->count === self::MOST_PARTS ? 0
                    : ($part instanceof Stretch ? $this->stretch($part, $taken) : $this->text($part, $of));
                // There is no room for more, or what is there must be written before other bytes can be mapped.
                if ($more === 0) {
                    $waiting = $this->bytes;
                    $written = $this->flush($at + $done);
                    $done += $written;
                    if ($waiting === 0 || $written < $waiting) {
                        return $done;
                    }
                }
            }
        }

        return $done + $this->flush($at + $done);
    }

    /** How much of a string is taken: all or, where there is no room, nothing. */
    private function text(string $bytes, int $count): int
    {
        if ($this->room === null || $this->used + $count > $this->most || $this->bytes >= self::MOST_BYTES) {
            return 0;
        }
        \FFI::memcpy(\FFI::addr($this->room[$this->used]), $bytes, strlen($bytes));
        $this->used += $count;

        return $this->take($this->roomAt + $this->used - $count, $count);
    }

    /** How much of a stretch is taken; nothing where it is not mapped and cannot be. */
    private function stretch(Stretch $stretch, int $from): int
    {
        $path = $stretch->source->name();
        $place = $stretch->offset + $from;
        $here = $this->mapping?->covers($path, $place) ?? 0;
        if ($here === 0) {
            if ($this->count > 0) {
                return 0;
            }
            $this->mapping = null;
            $this->mapping = Mapping::around($path, $stretch->source->size(), $place);
            $here = $this->mapping?->covers($path, $place) ?? 0;
        }
        $count = min($here, $stretch->length - $from, max(0, self::MOST_BYTES - $this->bytes));

        return $this->mapping === null || $count === 0 ? 0 : $this->take($this->mapping->at($place, $count), $count);
    }

    private function take(int $place, int $count): int
    {
        if ($this->parts !== null) {
            $part = $this->parts[$this->count++];
            $part->place = $place;
            $part->count = $count;
            $this->bytes += $count;
        }

        return $count;
    }

    private function flush(int $at): int
    {
        $written = $this->count === 0 || $this->target === null ? 0
            : max(0, (int) System::calls()?->pwritev($this->target->number, $this->parts, $this->count, $at));
        $this->count = $this->bytes = $this->used = 0;

        return $written;
    }
}
