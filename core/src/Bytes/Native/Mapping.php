<?php

declare(strict_types=1);

namespace Octavox\Core\Bytes\Native;

/**
 * A part of a file that is mapped into memory (mmap(2)), for the system to copy from. Only the system itself may look at it: there a file
 * that somebody has cut short meanwhile is an error, here it would be the end of this process.
 */
final class Mapping
{
    /** Bytes that are mapped at once, and of which the start is a multiple. */
    private const BYTES = 268_435_456;

    private const STEP = 2_097_152;

    /** bits/mman-linux.h: PROT_READ, MAP_PRIVATE, MADV_POPULATE_READ */
    private const READABLE = 1;

    private const OWN = 2;

    private const POPULATE = 22;

    private const PAGE = 4096;

    /** sys/mman.h: MAP_FAILED */
    private const FAILED = -1;

    /** @param  int  $start  its place in memory */
    private function __construct(private readonly string $path, private readonly int $from, private readonly int $bytes,
        private readonly int $start) {}

    public function __destruct()
    {
        System::calls()?->munmap($this->start, $this->bytes);
    }

    /**
     * Null where it cannot be.
     *
     * @param  int  $size  bytes of the file
     * @param  int  $place  that must be in it
     */
    public static function around(string $path, int $size, int $place): ?self
    {
        $calls = System::calls();
        $from = $place - $place % self::STEP;
        $bytes = min(self::BYTES, $size - $from);
        $source = $bytes > 0 ? Handle::open($path, Handle::READING) : null;
        $start = $source === null ? self::FAILED : (int) $calls?->mmap(0, $bytes, self::READABLE, self::OWN, $source->number, $from);

        return $calls === null || $start === self::FAILED ? null : new self($path, $from, $bytes, $start);
    }

    /** Bytes of the file that are here from this place on; 0 where none are. */
    public function covers(string $path, int $place): int
    {
        return $path === $this->path && $place >= $this->from ? max(0, $this->from + $this->bytes - $place) : 0;
    }

    /** Where in memory such bytes are, made ready to be copied. */
    public function at(int $place, int $count): int
    {
        $within = $place - $this->from;
        $skip = $within % self::PAGE;
        // Old systems know no such advice; then pages come one after another.
        System::calls()?->madvise($this->start + ($within - $skip), $count + $skip, self::POPULATE);

        return $this->start + $within;
    }
}
