<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Asf;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Codec\FrameParsers;
use Octavox\Core\Container\Described;
use Octavox\Core\Container\Mpeg\FrameCutter;
use Octavox\Core\Container\Mpeg\Pes;
use Octavox\Core\Container\Video\PictureDurations;
use Octavox\Core\Container\Video\PictureStream;
use Octavox\Core\Container\Video\VideoSource;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Diagnostic;
use Octavox\Core\Media\Packet;
use Octavox\Core\Media\Track;
use Octavox\Core\Tag\Tags;

/** An opened ASF file. */
final class AsfFile implements VideoSource
{
    use Described;

    /** Milliseconds of a picture that is the only one. */
    private const USUAL = 40;

    /**
     * @param  list<Track>  $tracks
     * @param  array<int, AsfStream>  $streams  of sound, by the track's number
     * @param  array<int, AsfPicture>  $pictures  streams of pictures, by the track's number
     * @param  list<Diagnostic>  $diagnostics
     */
    public function __construct(
        private readonly ByteSource $bytes,
        private readonly array $tracks,
        private readonly array $streams,
        private readonly array $pictures,
        private readonly AsfPackets $packets,
        private readonly Tags $tags,
        private readonly array $diagnostics,
    ) {}

    public function container(): string
    {
        return 'asf';
    }

    public function pictureStream(Track $track): ?PictureStream
    {
        $bitmap = ($this->pictures[$track->number] ?? null)?->bitmap;

        return $bitmap === null ? null : new PictureStream($bitmap->codec(), $bitmap->width, $bitmap->height, 1000,
            $track->picture->perSecond ?? 0.0, bitmapHeader: $bitmap->bytes);
    }

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function pictures(Track $track): iterable
    {
        $stream = $this->pictures[$track->number] ?? null;

        return $stream === null ? [] : PictureDurations::untilNext($this->timedPictures($stream), self::USUAL);
    }

    /**
     * @return iterable<array{string, int, int, bool}> bytes, milliseconds of decoding and of showing, key
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function timedPictures(AsfPicture $stream): iterable
    {
        $origin = null;
        $time = 0;
        foreach ($this->packets->objects($stream->number) as $object) {
            $origin ??= $object->time;
            $time = max($time, $object->time - $origin);
            yield [$object->data, $time, $time, $object->key];
        }
    }

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function packets(Track $track, int $from, int $until): iterable
    {
        $stream = $this->streams[$track->number] ?? null;
        $audio = $track->sound;
        if ($stream === null || $audio === null) {
            return;
        }
        $preroll = CodecModules::of($audio->codec)->preroll() * max(1, $audio->frameLength);
        foreach (self::read($this->packets, $stream, $audio) as $packet) {
            if ($packet->start >= $until) {
                return;
            }
            if ($packet->start + $packet->length > $from - $preroll) {
                $wanted = $audio->pcm === null ? $packet : $packet->within($from, $until, $audio->frameBytes());
                if ($wanted !== null) {
                    yield $wanted;
                }
            }
        }
    }

    /**
     * All packets of a stream. Uncompressed sound and frames that can be told apart are counted; of all others only the times say
     * how long they are.
     *
     * @return iterable<Packet>
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public static function read(AsfPackets $packets, AsfStream $stream, AudioFormat $audio): iterable
    {
        if (FrameParsers::for($audio->codec) !== null) {
            yield from self::frames($packets, $stream, $audio);

            return;
        }
        $block = $audio->pcm !== null ? $audio->frameBytes() : $stream->format->blockBytes;
        $samples = $audio->pcm !== null ? 1 : ($audio->frameLength > 0 ? $audio->frameLength : $stream->format->blockSamples);
        if ($samples === 0) {
            yield from self::timed($packets, $stream, $audio);

            return;
        }
        $start = 0;
        foreach ($packets->objects($stream->number) as $object) {
            $data = $stream->inOrder($object->data);
            $length = $audio->frameLength > 0 ? $audio->frameLength : intdiv(strlen($data), max(1, $block)) * $samples;
            yield new Packet($data, $start, $length);
            $start += $length;
        }
    }

    /**
     * @return iterable<Packet>
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private static function frames(AsfPackets $packets, AsfStream $stream, AudioFormat $audio): iterable
    {
        $framing = FrameParsers::for($audio->codec);
        if ($framing === null) {
            return;
        }
        $cutter = new FrameCutter($framing);
        $start = 0;
        foreach ($packets->objects($stream->number) as $object) {
            foreach ($cutter->feed(new Pes(0, $stream->inOrder($object->data), null, null, 0)) as [$data, , $samples]) {
                yield new Packet($data, $start, $samples);
                $start += $samples;
            }
        }
        foreach ($cutter->finish() as [$data, , $samples]) {
            yield new Packet($data, $start, $samples);
            $start += $samples;
        }
    }

    /**
     * @return iterable<Packet> each up to the time of the next, the last as long as its bytes take at the stated rate
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private static function timed(AsfPackets $packets, AsfStream $stream, AudioFormat $audio): iterable
    {
        $held = null;
        $origin = 0;
        $at = 0;
        foreach ($packets->objects($stream->number) as $object) {
            if ($held === null) {
                $origin = $object->time;
            } else {
                $next = max($at, self::sample($object->time - $origin, $audio));
                yield new Packet($stream->inOrder($held->data), $at, $next - $at);
                $at = $next;
            }
            $held = $object;
        }
        if ($held !== null) {
            yield new Packet($stream->inOrder($held->data), $at, self::lasts(strlen($held->data), $stream, $audio));
        }
    }

    /** Samples that an object of so many bytes holds at the stated rate, in whole milliseconds as all times here. */
    public static function lasts(int $bytes, AsfStream $stream, AudioFormat $audio): int
    {
        return self::sample((int) round($bytes * 1000 / max(1, $stream->format->bytesPerSecond)), $audio);
    }

    public static function sample(int $milliseconds, AudioFormat $audio): int
    {
        return (int) round($milliseconds * $audio->rate / 1000);
    }
}
