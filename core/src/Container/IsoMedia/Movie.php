<?php

declare(strict_types=1);

namespace Octavox\Core\Container\IsoMedia;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\Stretch;
use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Codec\Opus\OpusHead;
use Octavox\Core\Container\BrokenStructure;
use Octavox\Core\Container\Described;
use Octavox\Core\Container\IndexPlace;
use Octavox\Core\Container\OpenedBytes;
use Octavox\Core\Container\RunSource;
use Octavox\Core\Container\StretchSource;
use Octavox\Core\Container\Video\AuxiliarySample;
use Octavox\Core\Container\Video\AuxiliarySource;
use Octavox\Core\Container\Video\AuxiliaryTrack;
use Octavox\Core\Container\Video\PictureDurations;
use Octavox\Core\Container\Video\PictureSample;
use Octavox\Core\Container\Video\PictureStream;
use Octavox\Core\Failure;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Diagnostic;
use Octavox\Core\Media\Packet;
use Octavox\Core\Media\PacketRun;
use Octavox\Core\Media\Track;
use Octavox\Core\Sound\Time;
use Octavox\Core\Tag\Chapter;
use Octavox\Core\Tag\Tags;

/** An opened MP4 or QuickTime movie. */
final class Movie implements AuxiliarySource, IndexPlace, RunSource, StretchSource
{
    use Described;

    /** Frames of PCM a packet. */
    private const PCM_FRAMES = 16384;

    /** Bytes fetched at once from packets that stand together. */
    private const READ_TOGETHER = 262144;

    /** No access unit of a sound codec is longer. */
    private const MOST_PACKET = 4 * 1024 * 1024;

    /** No subtitle is longer, pictures of one included. */
    private const MOST_TEXT = 1024 * 1024;

    private const MOST_PICTURE = 128 * 1024 * 1024;

    private readonly ByteSource $bytes;

    private readonly string $container;

    private readonly Tags $tags;

    /** @var list<Diagnostic> */
    private readonly array $diagnostics;

    /**
     * @param  list<Track>  $tracks
     * @param  list<TrackTable>  $tables  in the order of the tracks
     * @param  list<Chapter>  $chapters
     * @param  ?ByteSource  $index  where the descriptions of the tracks stand, if not in the file itself
     */
    public function __construct(OpenedBytes $file, private readonly array $tracks, private readonly array $tables,
        private readonly array $chapters = [], private readonly ?ByteSource $index = null, private readonly bool $comesFirst = true)
    {
        $this->bytes = $file->bytes;
        $this->container = $file->container;
        $this->tags = $file->tags;
        $this->diagnostics = $file->diagnostics;
    }

    public function indexComesFirst(): bool
    {
        return $this->comesFirst;
    }

    public function container(): string
    {
        return $this->container;
    }

    public function chapters(): array
    {
        return $this->chapters;
    }

    /**
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function pictureStream(Track $track): ?PictureStream
    {
        return ($this->tables[$track->number - 1] ?? null)?->pictureStream(new BoxReader($this->index ?? $this->bytes));
    }

    /**
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function pictures(Track $track): iterable
    {
        $table = $this->tables[$track->number - 1] ?? null;
        if ($table === null) {
            return;
        }
        if ($table->samples->isFragmented()) {
            // What durations say and what the fragments' own times say can differ: the times count.
            yield from PictureDurations::pictures($this->marked($table));

            return;
        }
        yield from $this->marked($table);
    }

    /**
     * @return iterable<PictureSample> as the tables have them
     *
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function marked(TrackTable $table): iterable
    {
        $marks = $table->samples->marks();
        foreach ($table->samples->isFragmented() ? $table->samples->runs() : $table->samples->walk(0, PHP_INT_MAX >> 2, 0) as $sample) {
            [$at, $size, $tick, $duration] = $sample;
            if ($size > self::MOST_PICTURE) {
                throw BrokenStructure::at($this->bytes->name(), $at, sprintf('a picture announces %s bytes', number_format($size)));
            }
            if (count($sample) === 6) {
                $offset = $sample[4];
                $key = $sample[5] ?? true;
            } else {
                [$offset, $key] = $marks->current();
                $marks->next();
            }
            yield new PictureSample(Stretch::in($this->bytes, $at, $size), $tick, $tick + $offset, $duration, $key);
        }
    }

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function auxiliary(Track $track): ?AuxiliaryTrack
    {
        return ($this->tables[$track->number - 1] ?? null)?->auxiliary(new BoxReader($this->index ?? $this->bytes));
    }

    /**
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function auxiliarySamples(Track $track): iterable
    {
        $table = $this->tables[$track->number - 1] ?? null;
        if ($table === null) {
            return;
        }
        foreach ($table->samples->walk(0, PHP_INT_MAX >> 2, 0) as [$at, $size, $tick, $duration]) {
            if ($size > self::MOST_TEXT) {
                throw BrokenStructure::at($this->bytes->name(), $at, sprintf('a subtitle announces %s bytes', number_format($size)));
            }
            yield new AuxiliarySample($this->bytes->read($at, $size), $tick + $table->shift(), $duration);
        }
    }

    /**
     * @throws Failure
     */
    public function runs(Track $track): ?iterable
    {
        $audio = $track->sound;
        $table = $this->tables[$track->number - 1] ?? null;
        if ($audio === null || $table === null || $table->isCutShort() || $audio->frameLength === 0 || $audio->frameBytes() > 0
            || $table->timescale !== $audio->rate || $table->samples->steadyDuration() !== $audio->frameLength) {
            return null;
        }

        return (function () use ($table, $audio): iterable {
            foreach ($table->samples->groups(self::READ_TOGETHER) as [$at, $bytes, $first, $sizes]) {
                if ($bytes > self::MOST_PACKET) {
                    throw BrokenStructure::at($this->bytes->name(), $at,
                        sprintf('packets of sound that stand together announce %s bytes', number_format($bytes)));
                }
                yield new PacketRun(Stretch::in($this->bytes, $at, $bytes), $sizes, $first * $audio->frameLength, $audio->frameLength);
            }
        })();
    }

    /**
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function stretches(Track $track, int $from, int $until): ?iterable
    {
        $audio = $track->sound;
        $table = $this->tables[$track->number - 1] ?? null;

        return $audio === null || $table === null || ! $table->samples->countsFrames($audio->frameBytes()) ? null
            : (function () use ($table, $audio, $from, $until): iterable {
                $width = $audio->frameBytes();
                foreach ($this->parts($table, $audio, $from, $until, intdiv(self::MOST_BYTES, $width)) as [$at, , $count]) {
                    yield Stretch::in($this->bytes, $at, $count * $width);
                }
            })();
    }

    /**
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function packets(Track $track, int $from, int $until): iterable
    {
        $audio = $track->sound;
        foreach ($this->tracks as $index => $own) {
            if ($own->number === $track->number && $audio !== null) {
                $table = $this->tables[$index];

                return $table->samples->countsFrames($audio->frameBytes())
                    ? $this->frames($table, $audio, $from, $until)
                    : $this->units($table, $audio, $from, $until);
            }
        }

        return [];
    }

    /**
     * @return iterable<Packet> PCM whose samples are single frames: chunks, divided where they are long
     *
     * @throws BytesMissing
     * @throws BrokenStructure
     * @throws FileUnreadable
     */
    private function frames(TrackTable $table, AudioFormat $audio, int $from, int $until): iterable
    {
        $width = $audio->frameBytes();
        foreach ($this->parts($table, $audio, $from, $until, self::PCM_FRAMES) as [$at, $first, $count]) {
            yield new Packet($this->bytes->read($at, $count * $width), $first, $count);
        }
    }

    /**
     * @return iterable<array{int, int, int}> place, first frame and frames of what stands together, no more than $most of them
     *
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function parts(TrackTable $table, AudioFormat $audio, int $from, int $until, int $most): iterable
    {
        foreach ($table->samples->chunks() as [$at, $first, $count]) {
            if ($first >= $until) {
                return;
            }
            for ($done = max(0, $from - $first); $done < $count && $first + $done < $until; $done += $step) {
                $step = min($most, $count - $done, $until - $first - $done);
                yield [$at + $done * $audio->frameBytes(), $first + $done, $step];
            }
        }
    }

    /**
     * @return iterable<Packet>
     *
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function units(TrackTable $table, AudioFormat $audio, int $from, int $until): iterable
    {
        $group = [];
        $groupAt = 0;
        $groupEnd = 0;
        $base = $table->samples->firstTick();
        $walk = $table->samples->walk($base + Time::rescale($from, $audio->rate, $table->timescale),
            $base + Time::rescale($until, $audio->rate, $table->timescale), CodecModules::of($audio->codec)->preroll());
        foreach ($walk as $unit) {
            [$at, $size] = $unit;
            if ($size > self::MOST_PACKET) {
                throw BrokenStructure::at($this->bytes->name(), $at, sprintf('a packet of sound announces %s bytes', number_format($size)));
            }
            if ($group !== [] && ($at !== $groupEnd || $groupEnd - $groupAt > self::READ_TOGETHER)) {
                yield from $this->together($group, $groupAt, $groupEnd, $table, $audio);
                $group = [];
            }
            if ($group === []) {
                $groupAt = $at;
            }
            $group[] = $unit;
            $groupEnd = $at + $size;
        }
        yield from $this->together($group, $groupAt, $groupEnd, $table, $audio);
    }

    /**
     * @param  list<array{int, int, int, int}>  $group
     * @return iterable<Packet>
     *
     * @throws BytesMissing where the file was cut short
     * @throws FileUnreadable
     */
    private function together(array $group, int $at, int $end, TrackTable $table, AudioFormat $audio): iterable
    {
        if ($group === []) {
            return;
        }
        $bytes = $this->bytes->read($at, $end - $at);
        $width = $audio->frameBytes();
        foreach ($group as [$place, $size, $tick, $duration]) {
            $length = match (true) {
                $width > 0 => intdiv($size, $width),
                $audio->codec === Codec::Opus => OpusHead::samples(substr($bytes, $place - $at, min(2, $size))),
                $audio->frameLength > 0 => $audio->frameLength,
                default => Time::rescale($duration, $table->timescale, $audio->rate),
            };
            yield new Packet(substr($bytes, $place - $at, $size),
                Time::rescale($tick - $table->samples->firstTick(), $table->timescale, $audio->rate), $length);
        }
    }
}
