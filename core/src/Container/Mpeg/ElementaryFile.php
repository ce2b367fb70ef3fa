<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Mpeg;

use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Codec\Video\MpegPictures;
use Octavox\Core\Codec\Video\PictureUnits;
use Octavox\Core\Container\Video\PictureDurations;
use Octavox\Core\Container\Video\PictureStream;
use Octavox\Core\Container\Video\StreamedPictures;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Diagnostic;
use Octavox\Core\Media\Packet;
use Octavox\Core\Media\Track;
use Octavox\Core\Media\VideoFormat;
use Octavox\Core\Tag\Chapter;
use Octavox\Core\Tag\Tags;

/** An opened program or transport stream. */
final class ElementaryFile implements StreamedPictures
{
    /** Bytes in which a time is looked for while seeking. */
    private const PROBE = 512 * 1024;

    /** Ticks of a picture that is the only one: a 25th of a second. */
    private const USUAL = 3600;

    /**
     * @param  list<Track>  $tracks
     * @param  list<ElementaryTrack>  $streams  in the order of the tracks
     * @param  list<Diagnostic>  $diagnostics
     * @param  list<Chapter>  $chapters
     */
    public function __construct(private readonly string $container, private readonly PesSource $source, private readonly array $tracks,
        private readonly array $streams, private readonly array $diagnostics, private readonly Tags $tags,
        private readonly array $chapters) {}

    public function container(): string
    {
        return $this->container;
    }

    public function source(): ByteSource
    {
        return $this->source->bytes();
    }

    public function tracks(): array
    {
        return $this->tracks;
    }

    public function tags(): Tags
    {
        return $this->tags;
    }

    public function chapters(): array
    {
        return $this->chapters;
    }

    public function diagnostics(): array
    {
        return $this->diagnostics;
    }

    public function pictureStream(Track $track): ?PictureStream
    {
        $stream = $this->streams[$track->number - 1] ?? null;
        $units = $stream === null ? null : PictureUnits::of($stream->codec);
        if ($stream === null || $track->picture === null || $units === null) {
            return $stream !== null && $track->picture !== null && self::isMpeg($stream->codec)
                ? $this->mpegStream($stream, $track->picture) : null;
        }
        foreach ($this->source->packets(0, $this->source()->size(), $stream->id) as $packet) {
            $configuration = $units->configuration($packet->data);
            if ($configuration !== '') {
                return new PictureStream($stream->codec, $track->picture->width, $track->picture->height, ElementaryReader::TICKS,
                    $track->picture->perSecond, $configuration);
            }
        }

        return null;
    }

    public function pictures(Track $track): iterable
    {
        $stream = $this->streams[$track->number - 1] ?? null;
        if ($stream !== null && self::isMpeg($stream->codec)) {
            return PictureDurations::untilNext($this->mpegPictures($stream), 1);
        }
        $units = $stream === null ? null : PictureUnits::of($stream->codec);
        $configuration = $this->pictureStream($track)->configuration ?? '';

        return $stream === null || $units === null || $configuration === '' ? []
            : PictureDurations::untilNext($this->unitPictures($stream, $units, $configuration), self::USUAL);
    }

    /** @return iterable<array{string, int, int, bool}> bytes, ticks of decoding and of showing, key */
    private function unitPictures(ElementaryTrack $stream, PictureUnits $units, string $configuration): iterable
    {
        $clock = new TickClock($stream->longestGap);
        $begun = false;
        foreach ($this->wholePictures($stream) as [$bytes, $pts, $dts]) {
            $key = $units->isKey($bytes);
            $data = $units->withLengths($bytes, $configuration);
            // What comes before the first whole picture cannot be shown.
            if ($data === '' || ! $begun && ! $key) {
                continue;
            }
            $begun = true;
            $decoded = $clock->ticks($dts ?? $pts);
            yield [$data, $decoded, $decoded + ElementaryReader::between($dts ?? $pts, $pts), $key];
        }
    }

    /**
     * The bytes that belong to each time: what stands in a packet before its first start code is the end of the picture before,
     * and a packet without a time goes on with it (ISO/IEC 13818-1, 2.4.3.7, data_alignment_indicator 0).
     *
     * @return iterable<array{string, int, ?int}> bytes with start codes, ticks of showing and of decoding
     */
    private function wholePictures(ElementaryTrack $stream): iterable
    {
        $held = '';
        $times = null;
        foreach ($this->source->packets(0, $this->source()->size(), $stream->id) as $packet) {
            if ($packet->pts === null) {
                $held .= $packet->data;

                continue;
            }
            // A start code may begin in the packet before.
            $tail = substr($held, -2);
            $code = strpos($tail.$packet->data, "\0\0\1");
            $before = $code === false ? strlen($packet->data) : $code - strlen($tail);
            $held = $before < 0 ? substr($held, 0, $before) : $held.substr($packet->data, 0, $before);
            if ($code === false) {
                continue;
            }
            if ($times !== null) {
                yield [$held, ...$times];
            }
            $held = substr($tail.$packet->data, $code);
            $times = [$packet->pts, $packet->dts];
        }
        if ($times !== null && $held !== '') {
            yield [$held, ...$times];
        }
    }

    public function elementaryBytes(Track $track): iterable
    {
        $stream = $this->streams[$track->number - 1] ?? null;

        return $stream === null ? [] : $this->source->payload($stream->id);
    }

    private static function isMpeg(Codec $codec): bool
    {
        return in_array($codec, [Codec::Mpeg1Video, Codec::Mpeg2Video], true);
    }

    private function mpegStream(ElementaryTrack $stream, VideoFormat $picture): ?PictureStream
    {
        $bytes = '';
        foreach ($this->source->packets(0, $this->source()->size(), $stream->id) as $packet) {
            $bytes = substr($bytes, -65_536).$packet->data;
            $head = MpegPictures::head($bytes);
            if ($head !== '') {
                return new PictureStream($stream->codec, $picture->width, $picture->height, ElementaryReader::TICKS,
                    MpegPictures::perSecond($head), $head, spacing: MpegPictures::spacing($head, $picture->width, $picture->height));
            }
        }

        return null;
    }

    /** @return iterable<array{string, int, int, bool}> bytes, ticks of decoding and of showing, key */
    private function mpegPictures(ElementaryTrack $stream): iterable
    {
        $pictures = new MpegPictures;
        $clock = new TickClock($stream->longestGap);
        $origin = null;
        $units = (function () use ($stream, $pictures, $clock): iterable {
            foreach ($this->source->packets(0, $this->source()->size(), $stream->id) as $packet) {
                yield from $pictures->feed($packet->data, $packet->pts === null ? null : $clock->ticks($packet->pts));
            }
            yield from $pictures->finish();
        })();
        foreach ($units as [$data, $decoded, $shown, $key]) {
            $origin ??= $decoded;
            yield [$data, $decoded - $origin, $shown - $origin, $key];
        }
    }

    public function packets(Track $track, int $from, int $until): iterable
    {
        $stream = $this->streams[$track->number - 1] ?? null;
        $audio = $track->sound;
        if ($stream === null || $audio === null || $stream->audio === null || $stream->firstPts === null) {
            return;
        }
        $factor = max(1, intdiv($audio->rate, max(1, $stream->audio->rate)));
        $preroll = max(CodecModules::of($audio->codec)->preroll() * max(1, $audio->frameLength), intdiv($audio->rate, 5));
        $at = $from > $audio->rate && ! $stream->rebased ? $this->before($stream, max(0, $from - $preroll), $audio->rate) : 0;
        $clock = $stream->clock($audio->rate, $at === 0, $factor);
        foreach ($this->frames($stream, $at) as [$data, $time, $samples]) {
            $samples *= $factor;
            $start = $clock->place($time === null ? null : ElementaryReader::between($stream->firstPts, $time), $samples);
            if ($start === null) {
                continue;
            }
            if ($start >= $until) {
                return;
            }
            if ($clock->over() > 0 && $stream->pcm !== null) {
                $data = substr($data, $clock->over() * $audio->frameBytes());
                $samples -= $clock->over();
            }
            if ($start + $samples > $from - $preroll) {
                yield new Packet($data, $start, $samples);
            }
        }
    }

    /** @return iterable<array{string, ?int, int}> */
    private function frames(ElementaryTrack $stream, int $at): iterable
    {
        $size = $this->source()->size();
        $cutter = $stream->framing === null ? null : new FrameCutter($stream->framing);
        $started = $at === 0;
        foreach ($this->source->packets($at, $size, $stream->id) as $packet) {
            // In the middle of a file the first packet with a time begins.
            if (! $started && $packet->pts === null) {
                continue;
            }
            $started = true;
            if ($cutter !== null) {
                yield from $cutter->feed($packet);
            } elseif ($stream->pcm !== null && $stream->audio !== null) {
                $data = $stream->pcm->samples($packet->data);
                yield [$data, $packet->pts, intdiv(strlen($data), max(1, $stream->audio->frameBytes()))];
            }
        }
        if ($cutter !== null) {
            yield from $cutter->finish();
        }
    }

    /** A place in the file at which the stream is at or before the sample, by halving. */
    private function before(ElementaryTrack $stream, int $sample, int $rate): int
    {
        $target = (int) ($sample * ElementaryReader::TICKS / $rate);
        $low = 0;
        $high = $this->source()->size();
        while ($high - $low > 2 * self::PROBE) {
            $middle = intdiv($low + $high, 2);
            $found = null;
            foreach ($this->source->packets($middle, min($high, $middle + self::PROBE), $stream->id) as $packet) {
                if ($packet->pts !== null) {
                    $found = ElementaryReader::between((int) $stream->firstPts, $packet->pts);
                    break;
                }
            }
            $found !== null && $found <= $target ? $low = $middle : $high = $middle;
        }

        return $low;
    }
}
