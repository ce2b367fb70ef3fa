<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Matroska;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\Stretch;
use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Codec\PacketLengths;
use Octavox\Core\Container\BrokenStructure;
use Octavox\Core\Container\Described;
use Octavox\Core\Container\OpenedBytes;
use Octavox\Core\Container\StreamClock;
use Octavox\Core\Container\Video\Attachment;
use Octavox\Core\Container\Video\AttachmentSource;
use Octavox\Core\Container\Video\AuxiliarySample;
use Octavox\Core\Container\Video\AuxiliarySource;
use Octavox\Core\Container\Video\AuxiliaryTrack;
use Octavox\Core\Container\Video\PictureSample;
use Octavox\Core\Container\Video\PictureStream;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Diagnostic;
use Octavox\Core\Media\Packet;
use Octavox\Core\Media\Track;
use Octavox\Core\Media\TrackKind;
use Octavox\Core\Tag\Chapter;
use Octavox\Core\Tag\Tags;

/** An opened Matroska or WebM file. */
final class MatroskaFile implements AttachmentSource, AuxiliarySource
{
    use Described;

    private const MOST_FRAME = 4 * 1024 * 1024;

    private readonly ByteSource $bytes;

    private readonly Tags $tags;

    /** @var list<Diagnostic> */
    private readonly array $diagnostics;

    /**
     * @param  list<Track>  $tracks
     * @param  list<Chapter>  $chapters
     * @param  list<AttachedFile>  $attached
     */
    public function __construct(private readonly OpenedBytes $file, private readonly array $tracks, private readonly MatroskaIndex $index,
        private readonly array $chapters, private readonly array $attached = [])
    {
        $this->bytes = $file->bytes;
        $this->tags = $file->tags;
        $this->diagnostics = $file->diagnostics;
    }

    public function container(): string
    {
        return $this->file->container;
    }

    public function chapters(): array
    {
        return $this->chapters;
    }

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function attachments(): array
    {
        return array_map(fn (AttachedFile $file): Attachment => new Attachment($file->name, $file->type, $file->description,
            $this->bytes->read($file->at, $file->bytes)), $this->attached);
    }

    public function pictureStream(Track $track): ?PictureStream
    {
        $entry = $this->index->entries[$track->number - 1] ?? null;
        $picture = $track->picture;
        if ($entry === null || $picture === null) {
            return null;
        }

        return new PictureStream($picture->codec, $entry->width, $entry->height, (int) round(1e9 / $this->index->scale),
            $picture->perSecond,
            $entry->private, '', '', $entry->spacing(), $entry->colour, $entry->language,
            bitmapHeader: $entry->codecId === MatroskaPicture::BITMAP ? $entry->private : '');
    }

    /**
     * Only times of showing are stored: those of decoding are the same times in rising order, as much earlier as they must be.
     *
     * @throws BytesMissing
     * @throws BrokenStructure
     * @throws FileUnreadable
     */
    public function pictures(Track $track): iterable
    {
        $entry = $this->index->entries[$track->number - 1] ?? null;
        if ($entry === null) {
            return;
        }
        $times = [];
        foreach ($this->frames($entry, 0) as $frame) {
            $times[] = $frame->time;
        }
        $sorted = $times;
        sort($sorted);
        $early = 0;
        foreach ($times as $index => $time) {
            $early = max($early, $sorted[$index] - $time);
        }
        $count = count($times);
        $usual = max(1, $entry->frameNanoseconds > 0 ? (int) round($entry->frameNanoseconds / $this->index->scale)
            : ($count > 1 ? intdiv($sorted[$count - 1] - $sorted[0], $count - 1) : 40));
        $index = 0;
        foreach ($this->frames($entry, 0) as $frame) {
            $duration = $index + 1 < $count ? $sorted[$index + 1] - $sorted[$index] : $usual;
            yield new PictureSample($entry->isWhole() ? Stretch::in($this->bytes, $frame->at, $frame->bytes)
                : Stretch::of($entry->whole($this->bytes->read($frame->at, $frame->bytes))), $sorted[$index] - $sorted[0],
                $frame->time - $sorted[0] + $early, $duration, $frame->key);
            $index++;
        }
    }

    public function auxiliary(Track $track): ?AuxiliaryTrack
    {
        $entry = $this->index->entries[$track->number - 1] ?? null;

        return $entry === null || $entry->kind !== TrackKind::Text ? null
            : new AuxiliaryTrack($entry->codecId, $entry->private, (int) round(1e9 / $this->index->scale), $entry->language, $entry->name);
    }

    /**
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function auxiliarySamples(Track $track): iterable
    {
        $entry = $this->index->entries[$track->number - 1] ?? null;
        if ($entry === null) {
            return;
        }
        foreach ($this->frames($entry, 0) as $frame) {
            if ($frame->bytes > self::MOST_FRAME) {
                throw BrokenStructure::at($this->bytes->name(), $frame->at,
                    sprintf('a subtitle announces %s bytes', number_format($frame->bytes)));
            }
            yield new AuxiliarySample($entry->whole($this->bytes->read($frame->at, $frame->bytes)), $frame->time, $frame->duration);
        }
    }

    /**
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function packets(Track $track, int $from, int $until): iterable
    {
        $entry = $this->index->entries[$track->number - 1] ?? null;
        $audio = $entry?->sound;
        if ($entry === null || $audio === null || $track->sound === null) {
            return;
        }
        if (! PacketLengths::areTold($audio)) {
            yield from $this->timed($track, $entry, $audio, $from, $until);

            return;
        }
        $rate = $track->sound->rate;
        $factor = max(1, intdiv($rate, max(1, $audio->rate)));
        $preroll = max(CodecModules::of($audio->codec)->preroll() * ($audio->frameLength ?: 1024) * $factor, intdiv($rate, 10));
        $origin = $this->index->origins[$track->number] ?? 0;
        $ticks = (int) floor(max(0, $from - $preroll) * 1e9 / $rate / $this->index->scale);
        $first = $from <= 0 ? 0 : $this->index->clusters->before($origin + $ticks);
        $clock = new StreamClock($this->index->scale * $rate / 1e9, $rate);
        $length = PacketLengths::for($audio);
        $opening = null;
        $begun = $opened = false;
        foreach ($this->frames($entry, $first) as $frame) {
            if ($frame->bytes > self::MOST_FRAME) {
                throw BrokenStructure::at($this->bytes->name(), $frame->at,
                    sprintf('a packet of sound announces %s bytes', number_format($frame->bytes)));
            }
            $data = $entry->whole($this->bytes->read($frame->at, $frame->bytes));
            $samples = $length->samples($data) * $factor;
            if ($audio->codec === Codec::Vorbis && $first > 0 && $opening === null) {
                // The first packet gives no sound of its own; it only lets the second begin.
                $opening = $data;

                continue;
            }
            if ($audio->codec === Codec::Vorbis && $first === 0 && ! $opened) {
                // It gives no sound, wherever its writer put it.
                $opened = true;
                if ($from <= $preroll) {
                    $begun = true;
                    yield new Packet($data, 0, 0);
                }

                continue;
            }
            $start = $frame->index === 0 ? $clock->at($frame->time - $origin, $samples, $first === 0) : $clock->next($samples);
            if ($start >= $until) {
                return;
            }
            if ($opening !== null && $opening !== '') {
                yield new Packet($opening, $start, 0);
                $opening = '';
            }
            if ($start + $samples > $from - $preroll || $opening !== null) {
                // The first packet that a decoder of Vorbis gets only lets the next begin.
                $silent = $audio->codec === Codec::Vorbis && ! $begun && $start > 0 && $opening === null;
                $begun = true;
                yield $silent ? new Packet($data, $start + $samples, 0) : new Packet($entry->packet($data, $start), $start, $samples);
            }
        }
    }

    /**
     * @return iterable<Packet> each up to the time of the next, the last up to the end of the track
     *
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function timed(Track $track, TrackEntry $entry, AudioFormat $audio, int $from, int $until): iterable
    {
        $origin = $this->index->origins[$track->number] ?? 0;
        $held = null;
        foreach ($this->frames($entry, 0) as $frame) {
            if ($frame->bytes > self::MOST_FRAME) {
                throw BrokenStructure::at($this->bytes->name(), $frame->at,
                    sprintf('a packet of sound announces %s bytes', number_format($frame->bytes)));
            }
            $at = max($held->start ?? 0, (int) round(($frame->time - $origin) * $this->index->scale * $audio->rate / 1e9));
            if ($held !== null && $at > $from) {
                yield new Packet($held->data, $held->start, $at - $held->start);
            }
            if ($at >= $until) {
                return;
            }
            $held = new Packet($entry->whole($this->bytes->read($frame->at, $frame->bytes)), $at, 0);
        }
        if ($held !== null) {
            yield new Packet($held->data, $held->start, max(0, $track->timeline->coded - $held->start));
        }
    }

    /**
     * @return iterable<Frame>
     *
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function frames(TrackEntry $entry, int $first): iterable
    {
        $elements = new ElementReader($this->bytes, 512);
        $reader = new ClusterReader($elements);
        for ($index = $first; $index < $this->index->clusters->count(); $index++) {
            $cluster = $elements->at($this->index->clusters->at($index), $this->index->clusters->end($index));
            if ($cluster !== null) {
                yield from $reader->frames($cluster, $entry->number);
            }
        }
    }
}
