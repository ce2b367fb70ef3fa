<?php

declare(strict_types=1);

namespace Octavox\Core\Container\IsoMedia;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\Window;
use Octavox\Core\Codec\PlausibleLength;
use Octavox\Core\Container\BrokenStructure;
use Octavox\Core\Failure;
use Octavox\Core\Sound\Native\LibraryMissing;

/**
 * Where the samples of one track are and how long they last: the boxes of `stbl` (ISO/IEC 14496-12, 8.6 and 8.7)
 * and the runs of fragments. Tables stay in the file and are read through a window when they are walked.
 */
final class SampleTable
{
    /** One fragment run, packed: offset of data, count, first tick, offset of its table, flags, duration, size. */
    private const RUN = 'P7';

    private const RUN_BYTES = 56;

    /** Entries of a table that are read at once. */
    private const AHEAD = 4096;

    /** Pictures that are looked at to find which is shown first. */
    private const FIRST_PICTURES = 32;

    /** A year at 192 kHz and more. */
    private const MOST_TICKS = 1 << 46;

    private string $runs = '';

    private int $runCount = 0;

    private int $runTicks = 0;

    private int $runBytes = 0;

    private int $reach = 0;

    /** Ticks that one sample lasts at most; null where that is not known. */
    private ?int $frame = null;

    /** Whether none is believed to last longer. */
    private bool $isBounded = false;

    /** Bytes of all samples whose sizes are listed, once somebody has asked for them. */
    private ?int $listed = null;

    /**
     * @param  array<string, Column>  $columns by the box's name
     * @param  int  $limit  bytes of the file in which the samples are
     */
    private function __construct(private readonly ByteSource $bytes, private readonly array $columns, public readonly int $fixedSize,
        public readonly int $count, public readonly int $limit) {}

    /**
     * @param  int  $limit  bytes of the file in which the samples are: what lies beyond is missing
     *
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public static function read(BoxReader $boxes, Box $table, int $limit): self
    {
        $columns = [];
        $fixed = 0;
        $count = 0;
        foreach ($boxes->children($table) as $box) {
            $header = match ($box->type) {
                'stts', 'ctts' => [8, 8],
                'stsc' => [8, 12],
                'stco', 'stss' => [8, 4],
                'co64' => [8, 8],
                'stsz' => [12, 4],
                'stz2' => [12, 0],
                default => null,
            };
            if ($header === null || $box->bodyLength() < $header[0]) {
                continue;
            }
            $cursor = $boxes->head($box, 12)->skip(4);
            if ($box->type === 'stsz') {
                $fixed = $cursor->u32be();
                $count = $cursor->u32be();
                if ($fixed !== 0) {
                    continue;
                }
                $columns['stsz'] = new Column($box->bodyAt + 12, $count, 4);
            } elseif ($box->type === 'stz2') {
                $bits = $cursor->skip(3)->u8();
                $count = $cursor->u32be();
                if (! in_array($bits, [8, 16], true)) {
                    continue;
                }
                $columns['stsz'] = new Column($box->bodyAt + 12, $count, intdiv($bits, 8));
            } else {
                $columns[$box->type] = new Column($box->bodyAt + $header[0], $cursor->u32be(), $header[1]);
            }
            $column = $columns[$box->type === 'stz2' ? 'stsz' : $box->type];
            if ($column->count > intdiv($box->end - $column->at, max(1, $column->width))) {
                throw BrokenStructure::at($boxes->bytes->name(), $box->at,
                    sprintf('a table announces %s entries but is too short for them', number_format($column->count)));
            }
        }
        $self = new self($boxes->bytes, $columns, $fixed, $count, $limit);
        $self->measureReach();

        return $self;
    }

    public function addRun(FragmentRun $run): void
    {
        $this->runs .= $run->packed();
        $this->runCount += $run->count;
        $this->runTicks = max($this->runTicks, $run->firstTick + $run->ticks);
        $this->runBytes += $run->bytes;
        $this->reach = max($this->reach, $run->dataAt + $run->bytes);
    }

    /**
     * Tick after the last sample of all fragments read so far.
     *
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function fragmentEnd(): int
    {
        return $this->runTicks > 0 ? $this->runTicks : $this->ticks();
    }

    public function isFragmented(): bool
    {
        return $this->runs !== '';
    }

    /** Number of samples, in the container's sense. */
    public function samples(): int
    {
        return $this->count + $this->runCount;
    }

    /**
     * Length of all samples together, in ticks of the media.
     *
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function ticks(): int
    {
        $ticks = 0;
        $left = $this->count;
        foreach ($this->durations() as [$count, $delta]) {
            $ticks += min($count, $left) * $delta;
            $left -= min($count, $left);
            if ($ticks > self::MOST_TICKS) {
                throw BrokenStructure::at($this->bytes->name(), $this->columns['stts']->at, 'its durations add up to more than can be');
            }
        }

        return max($ticks, $this->runTicks);
    }

    /** Tick of the first sample: that of the first fragment where the movie itself has none (ISO/IEC 14496-12, 8.8.12). */
    public function firstTick(): int
    {
        return $this->count === 0 && $this->runs !== '' ? self::numbers(self::RUN, substr($this->runs, 0, self::RUN_BYTES))[2] : 0;
    }

    /**
     * Tick at which the first picture is shown: ISO/IEC 14496-12, 8.6.1.3 and 8.8.8.
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function firstShown(): int
    {
        $least = null;
        $seen = 0;
        if ($this->count === 0) {
            foreach ($this->runs() as [, , $tick, , $offset]) {
                $least = min($least ?? PHP_INT_MAX, $tick + $offset);
                if (++$seen > self::FIRST_PICTURES) {
                    break;
                }
            }

            return $least ?? 0;
        }
        $times = $this->times();
        $marks = $this->marks();
        for (; $seen < min($this->count, self::FIRST_PICTURES); $seen++, $marks->next()) {
            $least = min($least ?? PHP_INT_MAX, $times->at($seen)[0] + $marks->current()[0]);
        }

        return $least ?? 0;
    }

    /**
     * Tick at which the samples end that are wholly in the file: all of them, unless it was cut short.
     *
     * @throws Failure
     */
    public function thereUntil(int $frameBytes): int
    {
        $ticks = $this->ticks();
        if (max($this->reach, $this->bytes($frameBytes)) <= $this->limit) {
            return $ticks;
        }
        if ($this->countsFrames($frameBytes)) {
            foreach ($this->chunks() as [$at, $first, $count]) {
                if ($at + $count * $frameBytes > $this->limit) {
                    return $first + max(0, intdiv($this->limit - $at, $frameBytes));
                }
            }

            return $ticks;
        }
        $until = 0;
        foreach ($this->walk(0, PHP_INT_MAX >> 2, 0) as [, , $tick, $duration]) {
            $until = $tick + $duration;
        }

        return $until;
    }

    /**
     * Bytes of all samples together; $frameBytes counts where the container counts single frames of PCM.
     *
     * @throws BytesMissing
     * @throws LibraryMissing
     * @throws FileUnreadable
     */
    public function bytes(int $frameBytes): int
    {
        if (! isset($this->columns['stsz'])) {
            return $this->count * ($this->fixedSize === 1 && $frameBytes > 1 ? $frameBytes : $this->fixedSize) + $this->runBytes;
        }

        return $this->listedBytes() + $this->runBytes;
    }

    /**
     * @throws BytesMissing
     * @throws LibraryMissing
     * @throws FileUnreadable
     */
    private function listedBytes(): int
    {
        if ($this->listed === null) {
            $this->listed = 0;
            for ($from = 0; $from < $this->count; $from += $step) {
                $step = min(self::AHEAD, $this->count - $from);
                $this->listed += Sizes::sum($this->packedSizes($from, $step));
            }
        }

        return $this->listed;
    }

    /** First byte after the last chunk that starts within or beyond the file; tells whether the file is cut short. */
    public function reach(): int
    {
        return $this->reach;
    }

    /** Whether the container counts single frames of PCM as samples. */
    public function countsFrames(int $frameBytes): bool
    {
        return ! $this->isFragmented() && $frameBytes > 0 && ($this->fixedSize === $frameBytes || $this->fixedSize === 1);
    }

    /**
     * Chunks in order: where they stand, the index of their first sample, how many they have.
     *
     * @return iterable<array{int, int, int}>
     *
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function chunks(): iterable
    {
        $column = $this->columns['co64'] ?? $this->columns['stco'] ?? null;
        $runs = $this->columns['stsc'] ?? null;
        if ($column === null || $runs === null || $runs->count === 0) {
            return;
        }
        $ahead = [];
        $runWindow = new Window($this->bytes, $runs->at + $runs->count * 12, 6000);
        $run = 0;
        $perChunk = 0;
        $nextRun = 0;
        $sample = 0;
        for ($chunk = 1; $chunk <= $column->count && $sample < $this->count; $chunk++) {
            while ($run < $runs->count && $chunk >= $nextRun) {
                [, $perChunk] = self::numbers('N2', $runWindow->read($runs->at + 12 * $run, 8));
                $run++;
                $nextRun = $run < $runs->count ? self::numbers('N', $runWindow->read($runs->at + 12 * $run, 4))[0] : PHP_INT_MAX;
            }
            $place = ($chunk - 1) % self::AHEAD;
            if ($place === 0) {
                $ahead = self::numbers($column->width === 8 ? 'J*' : 'N*',
                    $this->bytes->read($column->at + ($chunk - 1) * $column->width,
                        min(self::AHEAD, $column->count - $chunk + 1) * $column->width));
            }
            $at = $ahead[$place] ?? -1;
            $count = min($perChunk, $this->count - $sample);
            if ($at < 0 || $count < 1) {
                throw BrokenStructure::at($this->bytes->name(), $column->at, 'its index points to places that cannot be');
            }
            yield [$at, $sample, $count];
            $sample += $count;
        }
    }

    /**
     * Samples from the tick $from up to the tick $until, with $preroll samples before: where, how many bytes, when, how long.
     * Those that stand together in the file come with one reading of bytes each, by {@see Movie}.
     *
     * @return iterable<array{int, int, int, int}> offset, bytes, tick, duration
     *
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function walk(int $from, int $until, int $preroll): iterable
    {
        yield from $this->walkChunks($from, $until, $preroll);
        yield from $this->walkRuns($from, $until, $preroll);
    }

    /**
     * @return iterable<array{int, int, int, int}>
     *
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function walkChunks(int $from, int $until, int $preroll): iterable
    {
        $first = max(0, $this->sampleAt($from) - $preroll);
        $times = $this->times();
        $column = $this->columns['stsz'] ?? null;
        foreach ($this->chunks() as [$at, $sample, $count]) {
            if ($sample + $count <= $first) {
                continue;
            }
            for ($done = 0; $done < $count; $done += $step) {
                $step = min(4096, $count - $done);
                $sizes = $column === null ? array_fill(0, $step, $this->fixedSize) : $this->sizes($column, $sample + $done, $step);
                foreach ($sizes as $index => $size) {
                    if ($sample + $done + $index >= $first) {
                        [$tick, $duration] = $times->at($sample + $done + $index);
                        if ($tick >= $until || $at > $this->limit - $size) {
                            return;
                        }
                        yield [$at, $size, $tick, $duration];
                    }
                    $at += $size;
                }
            }
        }
    }

    /**
     * Ticks of every sample but the last, where all last equally long; null where they do not, and in fragments.
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function steadyDuration(): ?int
    {
        $steady = null;
        $left = $this->count;
        foreach ($this->durations() as [$count, $delta]) {
            if ($steady !== null && $delta !== $steady && $left > 1) {
                return null;
            }
            $steady ??= $delta;
            $left -= $count;
        }

        return $this->isFragmented() || $left > 0 ? null : $steady;
    }

    /**
     * Samples that stand together: where, how many bytes, the number of the first, the bytes of each as 32-bit numbers.
     *
     * @param  int  $most  bytes after which a group ends
     * @return iterable<array{int, int, int, string}>
     *
     * @throws Failure
     */
    public function groups(int $most): iterable
    {
        $at = $bytes = $first = $next = 0;
        $group = $ahead = '';
        foreach ($this->chunks() as [$place, $sample, $count]) {
            for ($done = 0; $done < $count; $done += $step) {
                if ($sample + $done >= $next) {
                    $next = min($this->count, $sample + $done + self::AHEAD);
                    $ahead = $this->packedSizes($sample + $done, $next - $sample - $done);
                }
                $step = min($count - $done, $next - $sample - $done);
                $sizes = substr($ahead, 4 * ($sample + $done - $next), 4 * $step);
                if ($group !== '' && ($place !== $at + $bytes || $bytes > $most)) {
                    yield [$at, $bytes, $first, $group];
                    $group = '';
                }
                if ($group === '') {
                    [$at, $first, $bytes] = [$place, $sample + $done, 0];
                }
                $size = Sizes::sum($sizes);
                $group .= $sizes;
                $bytes += $size;
                $place += $size;
            }
        }
        if ($group !== '') {
            yield [$at, $bytes, $first, $group];
        }
    }

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function packedSizes(int $sample, int $count): string
    {
        $column = $this->columns['stsz'] ?? null;

        return match (true) {
            $column === null => str_repeat(pack('N', $this->fixedSize), $count),
            $column->width === 4 => $this->bytes->read($column->at + 4 * $sample, 4 * $count),
            default => pack('N*', ...$this->sizes($column, $sample, $count)),
        };
    }

    /**
     * All samples of fragments with what pictures need.
     *
     * @return iterable<array{int, int, int, int, int, ?bool}> offset, bytes, tick, duration, composition offset, key
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function runs(): iterable
    {
        for ($run = 0; $run < strlen($this->runs); $run += self::RUN_BYTES) {
            [$at, $count, $tick, $tableAt, $flags, $defaultDuration, $defaultSize] = self::numbers(self::RUN,
                substr($this->runs, $run, self::RUN_BYTES));
            foreach (FragmentReader::rows($this->bytes, $tableAt, $count, $flags, $defaultDuration, $defaultSize) as $index => [$duration,
                $size, $offset, $key]) {
                if ($at > $this->limit - $size) {
                    return;
                }
                yield [$at, $size, $tick, $duration, $offset, $key ?? ($index === 0 ? null : false)];
                $at += $size;
                $tick += $duration;
            }
        }
    }

    /**
     * @return iterable<array{int, int, int, int}>
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function walkRuns(int $from, int $until, int $preroll): iterable
    {
        $before = [];
        for ($run = 0; $run < strlen($this->runs); $run += self::RUN_BYTES) {
            [$at, $count, $tick, $tableAt, $flags, $defaultDuration, $defaultSize] = self::numbers(self::RUN,
                substr($this->runs, $run, self::RUN_BYTES));
            foreach (FragmentReader::rows($this->bytes, $tableAt, $count, $flags, $defaultDuration, $defaultSize) as [$duration, $size]) {
                if ($tick >= $until || $at > $this->limit - $size) {
                    return;
                }
                if ($tick + $duration > $from) {
                    yield from $before;
                    $before = [];
                    yield [$at, $size, $tick, $duration];
                } elseif ($preroll > 0) {
                    $before[] = [$at, $size, $tick, $duration];
                    if (count($before) > $preroll) {
                        array_shift($before);
                    }
                }
                $at += $size;
                $tick += $duration;
            }
        }
    }

    /** Whether every picture can be begun with: no table says which. */
    public function allKeys(): bool
    {
        return ! isset($this->columns['stss']);
    }

    /**
     * Composition offset and key mark of each sample in order; endless, so that it can be walked beside the samples.
     * ISO/IEC 14496-12, 8.6.1.3 and 8.6.2.
     *
     * @return \Generator<int, array{int, bool}>
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function marks(): \Generator
    {
        $keys = (function (): \Generator {
            $column = $this->columns['stss'] ?? null;
            for ($from = 0; $column !== null && $from < $column->count; $from += $step) {
                $step = min(4096, $column->count - $from);
                yield from self::numbers('N*', $this->bytes->read($column->at + 4 * $from, 4 * $step));
            }
        })();
        $offsets = (function (): \Generator {
            foreach ($this->pairs('ctts') as [$count, $offset]) {
                $offset = $offset >= 1 << 31 ? $offset - (1 << 32) : $offset;
                for (; $count > 0; $count--) {
                    yield $offset;
                }
            }
        })();
        for ($sample = 1; ; $sample++) {
            $key = $this->allKeys() || $keys->valid() && $keys->current() === $sample;
            if ($key && ! $this->allKeys()) {
                $keys->next();
            }
            yield [$offsets->valid() ? (int) $offsets->current() : 0, $key];
            $offsets->next();
        }
    }

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function times(): SampleTimes
    {
        return new SampleTimes($this->durations());
    }

    /**
     * Index of the sample that lasts over the tick.
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function sampleAt(int $tick): int
    {
        $sample = 0;
        $at = 0;
        foreach ($this->durations() as [$count, $delta]) {
            if ($at + $count * $delta > $tick) {
                return $sample + intdiv(max(0, $tick - $at), max(1, $delta));
            }
            $at += $count * $delta;
            $sample += $count;
        }

        return $sample;
    }

    /**
     * Samples of sound last no longer than a frame of their codec. Where one lasts longer the next comes later, and there is a gap between
     * them; but gaps of which there is much more than sound are a mistake of the table, and behind the last sample there is nothing.
     *
     * @param  int  $frame  ticks of one frame
     * @param  int  $mostOpen  ticks of gaps that are believed whatever else there is
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function boundDurations(int $frame, int $mostOpen): void
    {
        $held = $this->count * $frame;
        $open = 0.0;
        $left = $this->count;
        foreach ($this->pairs('stts') as [$count, $delta]) {
            $open += min($count, $left) * (float) max(0, $delta - $frame);
            $left -= min($count, $left);
        }
        $this->frame = $frame;
        $this->isBounded = $open > max($mostOpen, PlausibleLength::MUCH_MORE * $held);
    }

    /**
     * @return iterable<array{int, int}> number of samples, ticks of each, as far as they are believed
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function durations(): iterable
    {
        if ($this->frame === null) {
            yield from $this->pairs('stts');

            return;
        }
        $left = $this->count;
        foreach ($this->pairs('stts') as [$count, $delta]) {
            if ($delta > $this->frame && ($this->isBounded || $left <= $count)) {
                $long = $this->isBounded ? 0 : max(0, min($count, $left) - 1);
                if ($long > 0) {
                    yield [$long, $delta];
                }
                yield [$count - $long, $this->frame];
            } else {
                yield [$count, $delta];
            }
            $left -= $count;
        }
    }

    /**
     * @return iterable<array{int, int}>
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function pairs(string $name): iterable
    {
        $column = $this->columns[$name] ?? null;
        if ($column === null) {
            return;
        }
        for ($from = 0; $from < $column->count; $from += $step) {
            $step = min(4096, $column->count - $from);
            $numbers = self::numbers('N*', $this->bytes->read($column->at + 8 * $from, 8 * $step));
            for ($index = 0; $index < 2 * $step; $index += 2) {
                yield [$numbers[$index], $numbers[$index + 1]];
            }
        }
    }

    /**
     * @return list<int>
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function sizes(Column $column, int $from, int $count): array
    {
        return self::numbers(self::unpackCode($column), $this->bytes->read($column->at + $from * $column->width, $count * $column->width));
    }

    private static function unpackCode(Column $column): string
    {
        return match ($column->width) {
            1 => 'C*',
            2 => 'n*',
            default => 'N*',
        };
    }

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function measureReach(): void
    {
        $column = $this->columns['co64'] ?? $this->columns['stco'] ?? null;
        if ($column === null || $column->count === 0) {
            return;
        }
        // The last few chunks suffice: they stand in the order of the file in every recording that broke off.
        $from = max(0, $column->count - 8);
        $offsets = self::numbers($column->width === 8 ? 'J*' : 'N*',
            $this->bytes->read($column->at + $from * $column->width, ($column->count - $from) * $column->width));
        $last = isset($this->columns['stsz']) ? $this->sizes($this->columns['stsz'], max(0, $this->columns['stsz']->count - 1),
            min(1, $this->columns['stsz']->count)) : [$this->fixedSize];
        $this->reach = max(0, ...$offsets) + ($last[0] ?? 0);
    }

    /** @return list<int> */
    private static function numbers(string $format, string $bytes): array
    {
        /** @var array<int, int> $numbers */
        $numbers = unpack($format, $bytes) ?: [];

        return array_values($numbers);
    }
}
