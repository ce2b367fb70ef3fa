<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Avi;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\Cursor;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\Window;
use Octavox\Core\Codec\PacketLengths;
use Octavox\Core\Container\BitmapHeader;
use Octavox\Core\Container\BrokenStructure;
use Octavox\Core\Container\Demuxer;
use Octavox\Core\Container\NoTracks;
use Octavox\Core\Container\Wave\FormatChunk;
use Octavox\Core\Failure;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Diagnostic;
use Octavox\Core\Media\Findings;
use Octavox\Core\Media\Segment;
use Octavox\Core\Media\Severity;
use Octavox\Core\Media\Timeline;
use Octavox\Core\Media\Track;
use Octavox\Core\Media\VideoFormat;
use Octavox\Core\Tag\RiffInfo;
use Octavox\Core\Tag\Tags;

/** Reads headers and index of an AVI file: that of OpenDML, else `idx1`, else the chunks themselves. */
final class AviReader
{
    private const MOST_STREAMS = 64;

    private const MOST_HEADER = 64 * 1024;

    /** AVIIF_KEYFRAME, a flag of entries of `idx1`. */
    private const KEY = 0x10;

    private const MOST_INDEX = 64 * 1024 * 1024;

    /** Flags of index entries in OpenDML: bit 31 of the length marks pictures that depend on others. */
    private const LENGTH = 0x7FFFFFFF;

    /** @var list<AviStream> */
    private array $streams = [];

    private Tags $tags;

    private int $movieAt = 0;

    /** @var list<array{int, int}> begin and end of each list of chunks */
    private array $movies = [];

    private int $oldIndexAt = 0;

    private int $oldIndexBytes = 0;

    private bool $cut = false;

    private readonly Window $window;

    public function __construct(private readonly ByteSource $bytes)
    {
        $this->tags = Tags::none();
        $this->window = new Window($bytes, $bytes->size(), 4096);
    }

    /**
     * @throws Failure
     */
    public function read(): Demuxer
    {
        $size = $this->bytes->size();
        for ($at = 0; $at + 12 <= $size; $at += 8 + $length + ($length & 1)) {
            $head = new Cursor($this->window->read($at, 12), $this->bytes->name(), $at);
            $name = $head->take(4);
            $length = $head->u32le();
            if ($name !== 'RIFF') {
                break;
            }
            $this->cut = $this->cut || $at + 8 + $length > $size;
            $this->list($at + 12, min($size, $at + 8 + $length), 0);
            if ($length === 0) {
                break;
            }
        }
        if ($this->streams === []) {
            throw NoTracks::at($this->bytes->name());
        }
        $this->index();

        return $this->media();
    }

    /**
     * @throws BytesMissing
     * @throws BrokenStructure
     * @throws FileUnreadable
     */
    private function list(int $at, int $end, int $depth): void
    {
        while ($at + 8 <= $end) {
            $head = new Cursor($this->window->read($at, 8), $this->bytes->name(), $at);
            $name = $head->take(4);
            $length = $head->u32le();
            $there = min($length, $end - $at - 8);
            $kind = $name === 'LIST' && $there >= 4 ? $this->window->read($at + 8, 4) : '';
            if ($kind === 'movi') {
                $this->movieAt = $this->movieAt === 0 ? $at + 8 : $this->movieAt;
                $this->movies[] = [$at + 12, $at + 8 + $there];
            } elseif ($kind === 'strl') {
                $this->stream($at + 12, $at + 8 + $there);
            } elseif ($kind === 'INFO' && $there < 1 << 20) {
                $this->tags = RiffInfo::read($this->bytes->read($at + 12, $there - 4));
            } elseif ($kind !== '' && $depth < 4) {
                $this->list($at + 12, $at + 8 + $there, $depth + 1);
            } elseif ($name === 'idx1') {
                [$this->oldIndexAt, $this->oldIndexBytes] = [$at + 8, $there];
            }
            $at += 8 + $length + ($length & 1);
        }
    }

    /**
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function stream(int $at, int $end): void
    {
        $stream = null;
        while ($at + 8 <= $end && count($this->streams) < self::MOST_STREAMS) {
            $head = new Cursor($this->window->read($at, 8), $this->bytes->name(), $at);
            $name = $head->take(4);
            $length = $head->u32le();
            $there = min($length, $end - $at - 8);
            if ($name === 'strh' && $there >= 48) {
                $cursor = new Cursor($this->bytes->read($at + 8, 48), $this->bytes->name(), $at + 8);
                $kind = $cursor->take(4);
                $handler = $cursor->take(4);
                $cursor->skip(12);
                $stream = new AviStream($kind, $handler, max(1, $cursor->u32le()), max(1, $cursor->u32le()), $cursor->u32le(),
                    $cursor->u32le(), $cursor->skip(8)->u32le());
                $this->streams[] = $stream;
            } elseif ($name === 'strf' && $stream !== null && $stream->kind === 'auds' && $there >= 14) {
                $stream->format = FormatChunk::parse($this->bytes->read($at + 8, min($there, 1024)), $this->bytes->name(), $at + 8);
            } elseif ($name === 'strf' && $stream !== null && $stream->kind === 'vids' && $there >= 40) {
                $stream->bitmap = BitmapHeader::parse($this->bytes->read($at + 8, min($there, self::MOST_HEADER)), $stream->handler);
            } elseif ($name === 'indx' && $stream !== null) {
                [$stream->indexAt, $stream->indexBytes] = [$at + 8, $there];
            }
            $at += 8 + $length + ($length & 1);
        }
    }

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function index(): void
    {
        $complete = true;
        foreach ($this->streams as $stream) {
            try {
                $complete = $this->ownIndex($stream) && $complete;
            } catch (BytesMissing) {
                $complete = false;
            }
        }
        if ($complete) {
            return;
        }
        foreach ($this->streams as $stream) {
            $stream->forget();
        }
        // The old index knows only the first of several lists of chunks.
        if ($this->oldIndexBytes < 16 || $this->cut || count($this->movies) > 1 || ! $this->oldIndex()) {
            foreach ($this->streams as $stream) {
                $stream->forget();
            }
            foreach ($this->movies as [$at, $end]) {
                $this->walk($at, $end, 0);
            }
        }
    }

    /**
     * OpenDML 1.02, 3.0: an index of indexes, or one of chunks.
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function ownIndex(AviStream $stream): bool
    {
        if ($stream->indexBytes < 24) {
            return false;
        }
        $cursor = new Cursor($this->bytes->read($stream->indexAt, min(self::MOST_INDEX, $stream->indexBytes)), $this->bytes->name(),
            $stream->indexAt);
        $width = $cursor->u16le();
        $cursor->skip(1);
        $type = $cursor->u8();
        $count = $cursor->u32le();
        if ($type === 1) {
            $this->chunkIndex($stream, $stream->indexAt, $stream->indexBytes);

            return $stream->count > 0;
        }
        $cursor->skip(16);
        for ($entry = 0; $width === 4 && $entry < $count && $cursor->remaining() >= 16; $entry++) {
            $at = $cursor->u64le();
            $size = $cursor->u32le();
            $cursor->skip(4);
            if ($at + $size > $this->bytes->size() || $size < 32) {
                return false;
            }
            $this->chunkIndex($stream, $at + 8, $size - 8);
        }

        return $stream->count > 0;
    }

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function chunkIndex(AviStream $stream, int $at, int $bytes): void
    {
        $cursor = new Cursor($this->bytes->read($at, min(self::MOST_INDEX, $bytes)), $this->bytes->name(), $at);
        $cursor->skip(4);
        $count = $cursor->u32le();
        $base = $cursor->skip(4)->u64le();
        $cursor->skip(4);
        for ($entry = 0; $entry < $count && $cursor->remaining() >= 8; $entry++) {
            $place = $base + $cursor->u32le();
            $length = $cursor->u32le();
            $stream->add($place, $length & self::LENGTH, ($length & ~self::LENGTH) === 0);
        }
    }

    /**
     * `idx1`: places count from the list of chunks, or, with some writers, from the file's begin.
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function oldIndex(): bool
    {
        $base = null;
        for ($at = 0; $at + 16 <= $this->oldIndexBytes; $at += 16) {
            $cursor = new Cursor($this->window->read($this->oldIndexAt + $at, 16), $this->bytes->name(), $this->oldIndexAt + $at);
            $name = $cursor->take(4);
            $key = ($cursor->u32le() & self::KEY) !== 0;
            $place = $cursor->u32le();
            $length = $cursor->u32le();
            $number = self::number($name);
            if ($number === null || ! isset($this->streams[$number])) {
                continue;
            }
            $base ??= $this->window->read(min($this->movieAt + $place, max(0, $this->bytes->size() - 4)), 4) === $name ? $this->movieAt : 0;
            if ($base + $place + 8 + $length > $this->bytes->size()) {
                return false;
            }
            $this->streams[$number]->add($base + $place + 8, $length, $key);
        }

        return $base !== null;
    }

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function walk(int $at, int $end, int $depth): void
    {
        while ($at + 8 <= $end) {
            $head = new Cursor($this->window->read($at, 8), $this->bytes->name(), $at);
            $name = $head->take(4);
            $length = $head->u32le();
            if ($name === 'LIST' && $depth < 3) {
                $this->walk($at + 12, min($end, $at + 8 + $length), $depth + 1);
            } else {
                $number = self::number($name);
                if ($number !== null && isset($this->streams[$number]) && $at + 8 + $length <= $end) {
                    // Without an index only the first is known to be whole.
                    $this->streams[$number]->add($at + 8, $length, $this->streams[$number]->count === 0);
                }
            }
            $at += 8 + $length + ($length & 1);
        }
    }

    /** Two digits and the kind: `00dc` is a picture, `01wb` sound. */
    private static function number(string $name): ?int
    {
        return preg_match('/^(\d\d)(dc|db|wb|tx|pc)$/', $name, $match) === 1 ? (int) $match[1] : null;
    }

    /**
     * @throws NoTracks
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function media(): Demuxer
    {
        $tracks = [];
        $kept = [];
        foreach ($this->streams as $stream) {
            $number = count($tracks) + 1;
            if ($stream->kind === 'auds' && $stream->format !== null) {
                $tracks[] = $this->sound($number, $stream, $stream->format);
                $kept[$number] = $stream;
            } elseif ($stream->kind === 'vids') {
                $tracks[] = $this->picture($number, $stream);
                $kept[$number] = $stream;
            } elseif ($stream->kind === 'txts') {
                $tracks[] = Track::text($number);
            }
        }
        if ($tracks === []) {
            throw NoTracks::at($this->bytes->name());
        }
        $diagnostics = $this->cut
            ? [new Diagnostic(new Findings\NeverFinished, Severity::Warn)] : [];

        return new AviFile($this->bytes, $tracks, $kept, $this->tags, $diagnostics);
    }

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function sound(int $number, AviStream $stream, FormatChunk $format): Track
    {
        $audio = AviFile::probedFormat($format->audio, $stream, $this->bytes);
        $starts = intdiv($stream->start * $stream->scale * $audio->rate, $stream->rate);
        $coded = match (true) {
            $audio->pcm !== null => intdiv($stream->bytes, $audio->frameBytes()),
            $format->blockSamples > 0 => intdiv($stream->bytes, max(1, $format->blockBytes)) * $format->blockSamples,
            default => $this->counted($stream, $audio, $format),
        };

        $empty = $audio->frameLength > 0 && AviFile::framing($audio) === null
            ? min($coded, self::emptyChunks($stream) * $audio->frameLength) : 0;

        return Track::sound($number, $audio,
            Timeline::edited($starts + $empty, [Segment::media(0, $coded - $empty)], $coded - $empty), $stream->bytes);
    }

    /** Chunks before the first that holds something: the sound begins as much later. */
    private static function emptyChunks(AviStream $stream): int
    {
        $empty = 0;
        foreach ($stream->chunks() as [, $bytes]) {
            if ($bytes > 0) {
                break;
            }
            $empty++;
        }

        return $empty;
    }

    /**
     * Frames within chunks: counted where their number is stated by the chunks, else from the stream's length.
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function counted(AviStream $stream, AudioFormat $audio, FormatChunk $format): int
    {
        if (AviFile::framing($audio) !== null) {
            $samples = 0;
            foreach (AviFile::frames($this->bytes, $stream, $audio) as [, $length]) {
                $samples += $length;
            }

            return $samples;
        }
        if (! PacketLengths::areTold($audio)) {
            return AviFile::samplesUpTo($stream->bytes, $audio, $format);
        }
        if ($stream->sampleSize === 0) {
            $length = PacketLengths::for($audio);
            $samples = 0;
            foreach ($stream->chunks() as [$at, $bytes]) {
                $samples += $audio->frameLength > 0 ? $audio->frameLength : $length->samples($this->bytes->read($at, min($bytes, 16)));
            }

            return $samples;
        }

        return $format->bytesPerSecond > 0 ? intdiv($stream->bytes * $audio->rate, $format->bytesPerSecond) : 0;
    }

    private function picture(int $number, AviStream $stream): Track
    {
        $bitmap = $stream->bitmap;
        $rate = $stream->rate / $stream->scale;

        return Track::picture($number, new VideoFormat($bitmap?->codec() ?? Codec::Unknown, $bitmap?->label() ?? 'pictures',
            $bitmap->width ?? 0, $bitmap->height ?? 0, $rate, $stream->start / $rate, $stream->count / $rate), $stream->bytes);
    }
}
