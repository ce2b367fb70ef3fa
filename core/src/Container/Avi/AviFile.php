<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Avi;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\Stretch;
use Octavox\Core\Codec\Aac\AdtsFrameParser;
use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Codec\FrameParser;
use Octavox\Core\Codec\FrameParsers;
use Octavox\Core\Codec\Mp3\MpegFrameParser;
use Octavox\Core\Codec\PacketLengths;
use Octavox\Core\Container\Described;
use Octavox\Core\Container\Mpeg\FrameCutter;
use Octavox\Core\Container\Mpeg\Pes;
use Octavox\Core\Container\Video\PictureSample;
use Octavox\Core\Container\Video\PictureStream;
use Octavox\Core\Container\Video\VideoSource;
use Octavox\Core\Container\Wave\FormatChunk;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Diagnostic;
use Octavox\Core\Media\Packet;
use Octavox\Core\Media\Track;
use Octavox\Core\Tag\Tags;

/** An opened AVI file. */
final class AviFile implements VideoSource
{
    use Described;

    private const MOST_CHUNK = 16 * 1024 * 1024;

    private const MOST_PICTURE = 128 * 1024 * 1024;

    /**
     * @param  list<Track>  $tracks
     * @param  array<int, AviStream>  $streams  by the track's number
     * @param  list<Diagnostic>  $diagnostics
     */
    public function __construct(private readonly ByteSource $bytes, private readonly array $tracks, private readonly array $streams,
        private readonly Tags $tags, private readonly array $diagnostics) {}

    public function container(): string
    {
        return 'avi';
    }

    /** Motion JPEG only: each chunk is a whole picture that can be begun with. */
    public function pictureStream(Track $track): ?PictureStream
    {
        $stream = $this->streams[$track->number] ?? null;

        return $stream?->bitmap === null ? null : new PictureStream($stream->bitmap->codec(), $stream->bitmap->width,
            $stream->bitmap->height, $stream->rate, $stream->rate / $stream->scale, bitmapHeader: $stream->bitmap->bytes);
    }

    /** @throws BytesMissing */
    public function pictures(Track $track): iterable
    {
        $stream = $this->streams[$track->number] ?? null;
        $index = 0;
        foreach ($stream?->chunks() ?? [] as [$at, $bytes, $key]) {
            $time = $index++ * ($stream->scale ?? 1);
            // An empty chunk repeats the picture before.
            if ($bytes > 0) {
                yield new PictureSample(Stretch::in($this->bytes, $at, min($bytes, self::MOST_PICTURE)), $time, $time, $stream->scale ?? 1,
                    $key || $stream?->bitmap?->codec() === Codec::MotionJpeg);
            }
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
        if ($stream === null || $stream->format === null || $audio === null) {
            return;
        }
        $preroll = CodecModules::of($audio->codec)->preroll() * max(1, $audio->frameLength);
        $start = 0;
        $begun = false;
        foreach ($this->pieces($stream, $audio) as [$data, $length]) {
            if ($start >= $until) {
                return;
            }
            // An empty chunk stands for the time of a packet that is not there.
            if ($data !== '' && $start + $length > $from - $preroll) {
                $packet = new Packet($data, $start, $length);
                $packet = $audio->pcm === null ? $packet : $packet->within($from, $until, $audio->frameBytes());
                if ($packet !== null) {
                    yield $packet;
                }
            }
            // Those before the first packet only let the sound begin later.
            $start += $begun || $data !== '' ? $length : 0;
            $begun = $begun || $data !== '';
        }
    }

    /** How frames are told apart where chunks end anywhere; null where each chunk is a whole number of packets. */
    public static function framing(AudioFormat $audio): ?FrameParser
    {
        return $audio->codec === Codec::Aac && $audio->config === '' ? new AdtsFrameParser : FrameParsers::for($audio->codec);
    }

    /**
     * The audio format with what only the first frame tells.
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public static function probedFormat(AudioFormat $audio, AviStream $stream, ByteSource $bytes): AudioFormat
    {
        $framing = self::framing($audio);
        $head = '';
        foreach ($framing === null ? [] : $stream->chunks() as [$at, $length]) {
            $head .= $bytes->read($at, min($length, 8192));
            if (strlen($head) >= 8192) {
                break;
            }
        }
        for ($at = 0, $end = strlen($head); $framing !== null && $at < $end; $at++) {
            $facts = $framing->at(substr($head, $at, $framing->headBytes()));
            if ($facts !== null
                && ($at + $facts->bytes >= $end
                || $framing->at(substr($head, $at + $facts->bytes, $framing->headBytes()))?->identity === $facts->identity)) {
                return $framing->audio(str_pad(substr($head, $at), 16, "\0"));
            }
        }

        return $audio;
    }

    /**
     * @return iterable<array{string, int}> frames and their samples
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public static function frames(ByteSource $bytes, AviStream $stream, AudioFormat $audio): iterable
    {
        $framing = self::framing($audio) ?? new MpegFrameParser;
        $cutter = new FrameCutter($framing);
        foreach ($stream->chunks() as [$at, $length]) {
            foreach ($cutter->feed(new Pes(0, $bytes->read($at, min($length, self::MOST_CHUNK)), null, null, $at)) as [$data, , $samples]) {
                yield [$data, $samples];
            }
        }
        foreach ($cutter->finish() as [$data, , $samples]) {
            yield [$data, $samples];
        }
    }

    /** Where neither packets nor chunks tell how long they are, the bytes a second do. */
    public static function samplesUpTo(int $bytes, AudioFormat $audio, FormatChunk $format): int
    {
        return intdiv($bytes * $audio->rate, max(1, $format->bytesPerSecond));
    }

    /**
     * @return iterable<array{string, int}>
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function pieces(AviStream $stream, AudioFormat $audio): iterable
    {
        if (self::framing($audio) !== null) {
            yield from self::frames($this->bytes, $stream, $audio);

            return;
        }
        $format = $stream->format;
        $block = $audio->pcm !== null ? $audio->frameBytes() : max(1, $format->blockBytes ?? 1);
        $samples = $audio->pcm !== null ? 1 : $format->blockSamples ?? 0;
        $lengths = PacketLengths::for($audio);
        $held = '';
        $bytes = 0;
        foreach ($stream->chunks() as [$at, $length]) {
            if ($format !== null && ! PacketLengths::areTold($audio) && $samples === 0) {
                $before = self::samplesUpTo($bytes, $audio, $format);
                $bytes += $length;
                yield [$this->bytes->read($at, min($length, self::MOST_CHUNK)), self::samplesUpTo($bytes, $audio, $format) - $before];

                continue;
            }
            $data = $this->bytes->read($at, min($length, self::MOST_CHUNK));
            if ($samples === 0) {
                yield [$data, $audio->frameLength > 0 ? $audio->frameLength : $lengths->samples($data)];

                continue;
            }
            // Chunks need not end where a frame or a block ends.
            $held .= $data;
            $whole = strlen($held) - strlen($held) % $block;
            if ($whole > 0) {
                yield [substr($held, 0, $whole), intdiv($whole, $block) * $samples];
                $held = substr($held, $whole);
            }
        }
    }
}
