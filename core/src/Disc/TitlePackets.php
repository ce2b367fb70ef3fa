<?php

declare(strict_types=1);

namespace Octavox\Core\Disc;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\JoinedBytes;
use Octavox\Core\Container\Mpeg\ChapterTick;
use Octavox\Core\Container\Mpeg\ElementaryReader;
use Octavox\Core\Container\Mpeg\Pes;
use Octavox\Core\Container\Mpeg\PesSource;
use Octavox\Core\Container\ProgramStream\ProgramPackets;
use Octavox\Core\Media\Diagnostic;

/** The packets of a title, cell after cell, with times that go on from each cell to the next whatever the cells' own clocks say. */
final class TitlePackets implements PesSource
{
    private const SECTOR = 2048;

    /** Ticks before the first cell, so that sound which begins before it has a time too. */
    private const LEAD = ElementaryReader::TICKS;

    /** Where the navigation packet of a unit has the times at which its pictures begin and end: after pack and system header. */
    private const BEGINS = 0x39;

    private const ENDS = 0x3D;

    /** Ticks by which clocks of cells that follow each other without a break may differ. */
    private const UNBROKEN = 45_000;

    /** How much longer than the tables say a cell may last by its own clock. */
    private const MUCH_LONGER = 2.0;

    /** Sectors of a unit at the most: a second of the highest rate. */
    private const LONGEST_UNIT = 1024;

    private readonly ProgramPackets $packets;

    /**
     * @param  list<int>  $begins  bytes of the whole at which each cell begins
     * @param  list<int>  $shifts  ticks to add to the times of each
     * @param  list<ChapterTick>  $chapters
     * @param  list<Diagnostic>  $diagnostics
     */
    private function __construct(private readonly JoinedBytes $bytes, private readonly array $begins, private readonly array $shifts,
        private readonly array $chapters, private readonly array $diagnostics)
    {
        $this->packets = new ProgramPackets($bytes);
    }

    /**
     * @param  JoinedBytes  $parts  sound and pictures of the title set
     *
     * @throws FileUnreadable
     * @throws BytesMissing
     */
    public static function of(string $path, DiscTitle $title, JoinedBytes $parts): self
    {
        $stretches = $begins = $shifts = $chapters = [];
        $size = $missing = $announced = 0;
        $time = self::LEAD;
        $ended = $started = null;
        foreach ($title->cells as $cell) {
            $pieces = [];
            foreach ($cell->sectors as [$first, $last]) {
                $at = min($first * self::SECTOR, $parts->size());
                $length = ($last - $first + 1) * self::SECTOR;
                $there = min($length, $parts->size() - $at);
                $there -= $there % self::SECTOR;
                $announced += $length;
                $missing += $length - $there;
                array_push($pieces, ...$parts->stretches($at, $there));
            }
            $whole = new JoinedBytes($path, $pieces);
            if ($whole->size() === 0) {
                continue;
            }
            [$from, $until] = self::times($whole, $cell);
            if ($started !== null && $ended !== null) {
                $time += abs($from - $ended) <= self::UNBROKEN ? $from - $started : $ended - $started;
            }
            $begins[] = $size;
            $shifts[] = $time - $from;
            [$started, $ended] = [$from, $until];
            if ($cell->chapter !== null) {
                $chapters[] = new ChapterTick($time, sprintf('Chapter %d', $cell->chapter));
            }
            array_push($stretches, ...$pieces);
            $size += $whole->size();
        }

        return new self(new JoinedBytes($path, $stretches), $begins, $shifts, $chapters, $missing === 0 ? []
            : [Diagnostic::cutShort($announced, $announced - $missing, 'bytes')]);
    }

    public function bytes(): ByteSource
    {
        return $this->bytes;
    }

    /** @return list<ChapterTick> */
    public function chapters(): array
    {
        return $this->chapters;
    }

    /** @return list<Diagnostic> */
    public function diagnostics(): array
    {
        return $this->diagnostics;
    }

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function packets(int $from, int $until, ?int $track = null): iterable
    {
        $cell = $this->cell($from);
        foreach ($this->packets->packets($from, $until, $track) as $packet) {
            while (isset($this->begins[$cell + 1]) && $packet->at >= $this->begins[$cell + 1]) {
                $cell++;
            }
            $shift = $this->shifts[$cell];
            yield new Pes($packet->track, $packet->data, $packet->pts === null ? null : $packet->pts + $shift & Pes::WRAP - 1,
                $packet->dts === null ? null : $packet->dts + $shift & Pes::WRAP - 1, $packet->at);
        }
    }

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function payload(int $track): iterable
    {
        return $this->packets->payload($track);
    }

    private function cell(int $at): int
    {
        [$low, $high] = [0, count($this->begins) - 1];
        while ($low < $high) {
            $middle = intdiv($low + $high + 1, 2);
            $this->begins[$middle] <= $at ? $low = $middle : $high = $middle - 1;
        }

        return $low;
    }

    /**
     * When a cell begins and ends by its own clock: from its first and its last navigation packet; what these do not tell, from the
     * first time in it and the tables.
     *
     * @return array{int, int} ticks
     *
     * @throws FileUnreadable
     * @throws BytesMissing
     */
    private static function times(JoinedBytes $cell, DiscCell $tables): array
    {
        $told = (int) round($tables->seconds * ElementaryReader::TICKS);
        $first = $cell->read(0, self::SECTOR);
        $from = self::isNavigation($first) ? self::number($first, self::BEGINS) : self::firstTime($cell);
        $sectors = intdiv($cell->size(), self::SECTOR);
        $until = null;
        foreach ([$tables->lastUnit(), ...range($sectors - 1, max(0, $sectors - self::LONGEST_UNIT))] as $sector) {
            $bytes = $sector < 0 || $sector >= $sectors ? '' : $cell->read($sector * self::SECTOR, 64);
            if (self::isNavigation($bytes)) {
                $until = self::number($bytes, self::ENDS);
                break;
            }
        }
        $lasts = $until === null ? $told : $until - $from;

        $isLikely = $lasts > 0 && ($told === 0 || $lasts <= self::MUCH_LONGER * $told + ElementaryReader::TICKS);

        return [$from, $from + ($isLikely ? $lasts : $told)];
    }

    /** A pack with a system header and the first of the two private packets that say how to go on: its sub-stream is 0. */
    private static function isNavigation(string $sector): bool
    {
        return str_starts_with($sector, "\0\0\1\xBA") && substr($sector, 0x26, 4) === "\0\0\1\xBF" && ($sector[0x2C] ?? '') === "\0";
    }

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private static function firstTime(JoinedBytes $cell): int
    {
        $first = null;
        foreach ((new ProgramPackets($cell))->packets(0, min($cell->size(), 1 << 20)) as $packet) {
            if ($packet->pts !== null && ($first === null || ElementaryReader::between($packet->pts, $first) > 0)) {
                $first = $packet->pts;
            }
        }

        return $first ?? 0;
    }

    private static function number(string $bytes, int $at): int
    {
        return strlen($bytes) < $at + 4 ? 0 : (int) (unpack('N', $bytes, $at)[1] ?? 0);
    }
}
