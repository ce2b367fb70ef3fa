<?php

declare(strict_types=1);

namespace Octavox\Core\Container\IsoMedia;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\Window;
use Octavox\Core\Container\BrokenStructure;

/** Reads movie fragments: ISO/IEC 14496-12, 8.8. */
final class FragmentReader
{
    /** Flags of `tfhd`: 8.8.7 */
    private const BASE = 0x1;

    private const DESCRIPTION = 0x2;

    private const DURATION = 0x8;

    private const SIZE = 0x10;

    /** Flags of `trun`: 8.8.8 */
    private const DATA_OFFSET = 0x1;

    private const FIRST_FLAGS = 0x4;

    private const ROW_DURATION = 0x100;

    private const ROW_SIZE = 0x200;

    private const ROW_FLAGS = 0x400;

    private const ROW_OFFSET = 0x800;

    /** Samples of one run. */
    private const MOST_SAMPLES = 10_000_000;

    /**
     * @param  list<TrackTable>  $tables
     * @param  array<int, FragmentDefaults>  $defaults  by the track's identity
     */
    public function __construct(private readonly BoxReader $boxes, private readonly array $tables, private readonly array $defaults) {}

    /**
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function read(Box $fragment): void
    {
        $end = $fragment->at;
        foreach ($this->boxes->children($fragment) as $child) {
            if ($child->type === 'traf') {
                $end = $this->trackFragment($fragment, $child, $end);
            }
        }
    }

    /**
     * Duration, size, composition offset and, where it is stated, whether it can be begun with, of each sample of a run.
     *
     * @return iterable<array{int, int, int, ?bool}>
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public static function rows(ByteSource $bytes, int $tableAt, int $count, int $flags, int $duration, int $size): iterable
    {
        $width = self::rowWidth($flags);
        $window = new Window($bytes, $tableAt + $width * $count);
        $offset = 0;
        $key = null;
        for ($row = 0; $row < $count; $row++) {
            if ($width > 0) {
                /** @var array<int, int> $numbers */
                $numbers = unpack('N*', $window->read($tableAt + $row * $width, $width)) ?: [];
                $place = 1;
                $duration = ($flags & self::ROW_DURATION) !== 0 ? $numbers[$place++] : $duration;
                $size = ($flags & self::ROW_SIZE) !== 0 ? $numbers[$place++] : $size;
                // 8.8.3.1: sample_is_non_sync_sample
                $key = ($flags & self::ROW_FLAGS) !== 0 ? ($numbers[$place++] & 0x10000) === 0 : null;
                $offset = ($flags & self::ROW_OFFSET) !== 0 ? $numbers[$place] : 0;
                $offset = $offset >= 1 << 31 ? $offset - (1 << 32) : $offset;
            }
            yield [$duration, $size, $offset, $key];
        }
    }

    /**
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function trackFragment(Box $fragment, Box $box, int $end): int
    {
        $header = $this->boxes->find($box, 'tfhd');
        if ($header === null) {
            return $end;
        }
        $cursor = $this->boxes->content($header)->skip(1);
        $flags = $cursor->u24be();
        $identity = $cursor->u32be();
        $base = ($flags & self::BASE) !== 0 ? $cursor->u64be() : $fragment->at;
        $cursor->skip(($flags & self::DESCRIPTION) !== 0 ? 4 : 0);
        $defaults = $this->defaults[$identity] ?? new FragmentDefaults(0, 0);
        $duration = ($flags & self::DURATION) !== 0 ? $cursor->u32be() : $defaults->duration;
        $size = ($flags & self::SIZE) !== 0 ? $cursor->u32be() : $defaults->size;
        $table = $this->table($identity);
        if ($table === null) {
            return $end;
        }
        $tick = $table->samples->fragmentEnd();
        $place = $base;
        foreach ($this->boxes->children($box) as $child) {
            if ($child->type === 'tfdt') {
                $cursor = $this->boxes->content($child);
                $tick = $cursor->u8() === 1 ? $cursor->skip(3)->u64be() : $cursor->skip(3)->u32be();
            } elseif ($child->type === 'trun') {
                [$tick, $place] = $this->run($child, $table, $base, $place, $tick, $duration, $size);
            }
        }

        return $place;
    }

    /**
     * @return array{int, int} next tick, next place
     *
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function run(Box $box, TrackTable $table, int $base, int $place, int $tick, int $duration, int $size): array
    {
        $cursor = $this->boxes->head($box, 20)->skip(1);
        $flags = $cursor->u24be();
        $count = $cursor->u32be();
        $skip = 8;
        if (($flags & self::DATA_OFFSET) !== 0) {
            $place = $base + $cursor->s32be();
            $skip += 4;
        }
        $skip += ($flags & self::FIRST_FLAGS) !== 0 ? 4 : 0;
        if ($count > self::MOST_SAMPLES || $skip + $count * self::rowWidth($flags) > $box->bodyLength() || $place < 0) {
            throw BrokenStructure::at($this->boxes->bytes->name(), $box->at,
                sprintf('a fragment announces %s samples but is too short for them', number_format($count)));
        }
        $ticks = $count * $duration;
        $bytes = $count * $size;
        if (($flags & (self::ROW_DURATION | self::ROW_SIZE)) !== 0) {
            $ticks = 0;
            $bytes = 0;
            foreach (self::rows($this->boxes->bytes, $box->bodyAt + $skip, $count, $flags, $duration, $size) as [$rowDuration, $rowSize]) {
                $ticks += $rowDuration;
                $bytes += $rowSize;
            }
        }
        $table->samples->addRun(new FragmentRun($place, $count, $tick, $box->bodyAt + $skip, $flags, $duration, $size, $ticks, $bytes));

        return [$tick + $ticks, $place + $bytes];
    }

    private function table(int $identity): ?TrackTable
    {
        foreach ($this->tables as $table) {
            if ($table->identity === $identity) {
                return $table;
            }
        }

        return null;
    }

    private static function rowWidth(int $flags): int
    {
        return 4 * ((($flags & self::ROW_DURATION) !== 0 ? 1 : 0) + (($flags & self::ROW_SIZE) !== 0 ? 1 : 0)
            + (($flags & self::ROW_FLAGS) !== 0 ? 1 : 0) + (($flags & self::ROW_OFFSET) !== 0 ? 1 : 0));
    }
}
