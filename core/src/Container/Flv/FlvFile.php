<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Flv;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\Stretch;
use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Codec\Mp3\FrameHeader;
use Octavox\Core\Codec\Video\SequenceParameters;
use Octavox\Core\Container\RisingTimes;
use Octavox\Core\Container\StreamClock;
use Octavox\Core\Container\Video\PictureSample;
use Octavox\Core\Container\Video\PictureStream;
use Octavox\Core\Container\Video\VideoSource;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Diagnostic;
use Octavox\Core\Media\Packet;
use Octavox\Core\Media\Track;
use Octavox\Core\Tag\Tags;

/** An opened FLV file. */
final class FlvFile implements VideoSource
{
    /**
     * @param  list<Track>  $tracks
     * @param  int  $origin  milliseconds of the first sound
     * @param  list<Diagnostic>  $diagnostics
     */
    public function __construct(private readonly ByteSource $bytes, private readonly array $tracks, private readonly int $origin,
        private readonly array $diagnostics = []) {}

    /** Times of pictures, in milliseconds. */
    public static function times(): RisingTimes
    {
        return new RisingTimes(1000, 40);
    }

    public function container(): string
    {
        return 'flv';
    }

    public function source(): ByteSource
    {
        return $this->bytes;
    }

    public function tracks(): array
    {
        return $this->tracks;
    }

    public function tags(): Tags
    {
        return Tags::none();
    }

    public function chapters(): array
    {
        return [];
    }

    public function diagnostics(): array
    {
        return $this->diagnostics;
    }

    /**
     * H.264 only: its record stands in a tag of its own (E.4.3.2).
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function pictureStream(Track $track): ?PictureStream
    {
        if ($track->picture?->codec !== Codec::H264) {
            return null;
        }
        foreach ((new FlvTags($this->bytes))->all() as $tag) {
            if ($tag->kind === FlvTags::PICTURE && $tag->bytes > 5 && ord($tag->head[1] ?? "\1") === 0) {
                return new PictureStream(Codec::H264, $track->picture->width, $track->picture->height, 1000, $track->picture->perSecond,
                    self::record($this->bytes, $tag));
            }
        }

        return null;
    }

    /**
     * What the decoder needs, behind the kind of tag and three bytes of time: AVCDecoderConfigurationRecord of ISO/IEC 14496-15, 5.3.3.1.
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public static function record(ByteSource $bytes, FlvTag $tag): string
    {
        return $bytes->read($tag->at + 5, max(0, min(4096, $tag->bytes - 5)));
    }

    /** @return array{int, int} width and height by the first parameter set of a record; 0 where it cannot be understood */
    public static function size(string $record): array
    {
        $length = strlen($record) > 8 ? ord($record[6]) << 8 | ord($record[7]) : 0;

        return SequenceParameters::parse(substr($record, 8, $length))?->size() ?? [0, 0];
    }

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function pictures(Track $track): iterable
    {
        $held = null;
        $heldAt = 0;
        $origin = null;
        $duration = 40;
        $times = self::times();
        foreach ((new FlvTags($this->bytes))->all() as $tag) {
            if ($tag->kind !== FlvTags::PICTURE || $tag->bytes <= 5 || ord($tag->head[1] ?? "\0") !== 1) {
                continue;
            }
            $time = $times->at($tag->time);
            $origin ??= $time;
            if ($held instanceof FlvTag) {
                $duration = max(1, $time - $heldAt);
                yield $this->sample($held, $heldAt - $origin, $duration);
            }
            $held = $tag;
            $heldAt = $time;
        }
        if ($held instanceof FlvTag) {
            yield $this->sample($held, $heldAt - (int) $origin, $duration);
        }
    }

    /**
     * Three bytes of composition time, with a sign, stand before the picture.
     *
     * @throws BytesMissing
     */
    private function sample(FlvTag $tag, int $decoded, int $duration): PictureSample
    {
        $offset = ord($tag->head[2]) << 16 | ord($tag->head[3]) << 8 | ord($tag->head[4]);
        $offset = $offset >= 1 << 23 ? $offset - (1 << 24) : $offset;

        return new PictureSample(Stretch::in($this->bytes, $tag->at + 5, $tag->bytes - 5), $decoded, $decoded + $offset, $duration,
            ord($tag->head[0]) >> 4 === 1);
    }

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function packets(Track $track, int $from, int $until): iterable
    {
        $audio = $track->sound;
        $own = ($this->tracks[$track->number - 1] ?? null)?->sound;
        if ($audio === null || $own === null) {
            return;
        }
        $aac = $audio->codec === Codec::Aac;
        $factor = max(1, intdiv($audio->rate, max(1, $own->rate)));
        $preroll = CodecModules::of($audio->codec)->preroll() * max(1, $audio->frameLength);
        $clock = new StreamClock($audio->rate / 1000, $audio->rate);
        foreach ((new FlvTags($this->bytes))->all() as $tag) {
            if ($tag->kind !== FlvTags::SOUND || $tag->bytes < 2 || $aac && ord($tag->head[1]) === 0) {
                continue;
            }
            $samples = self::samples($own, $tag) * $factor;
            $start = $clock->at($tag->time - $this->origin, $samples, true);
            if ($start >= $until) {
                return;
            }
            $skip = $aac ? 2 : 1;
            if ($start + $samples > $from - $preroll && $tag->bytes > $skip) {
                yield new Packet($this->bytes->read($tag->at + $skip, $tag->bytes - $skip), $start, $samples);
            }
        }
    }

    /** Samples that the sound of a tag decodes to. */
    public static function samples(AudioFormat $audio, FlvTag $tag): int
    {
        return match (true) {
            $audio->pcm !== null => intdiv($tag->bytes - 1, max(1, $audio->frameBytes())),
            in_array($audio->codec, [Codec::Mp1, Codec::Mp2, Codec::Mp3], true) => FrameHeader::parse(substr($tag->head, 1))->samples
                ?? $audio->frameLength,
            default => $audio->frameLength,
        };
    }
}
