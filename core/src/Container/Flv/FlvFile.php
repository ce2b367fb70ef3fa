<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Flv;

use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Codec\Codec;
use Octavox\Core\Codec\Mp3\FrameHeader;
use Octavox\Core\Codec\Packet;
use Octavox\Core\Codec\SoundForm;
use Octavox\Core\Container\Media;
use Octavox\Core\Container\StreamClock;
use Octavox\Core\Container\Track;
use Octavox\Core\Tag\Tags;

/** An opened FLV file. */
final class FlvFile implements Media
{
    /**
     * @param  list<Track>  $tracks
     * @param  int  $origin  milliseconds of the first sound
     */
    public function __construct(private readonly ByteSource $bytes, private readonly array $tracks, private readonly int $origin)
    {
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

    public function remarks(): array
    {
        return [];
    }

    public function packets(Track $track, int $from, int $until): iterable
    {
        $form = $track->sound;
        $own = ($this->tracks[$track->number - 1] ?? null)?->sound;
        if ($form === null || $own === null) {
            return;
        }
        $aac = $form->codec === Codec::Aac;
        $factor = max(1, intdiv($form->rate, max(1, $own->rate)));
        $preroll = $form->codec->preroll() * max(1, $form->frameLength);
        $clock = new StreamClock($form->rate / 1000, $form->rate);
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
    public static function samples(SoundForm $form, FlvTag $tag): int
    {
        return match (true) {
            $form->pcm !== null => intdiv($tag->bytes - 1, max(1, $form->frameBytes())),
            in_array($form->codec, [Codec::Mp1, Codec::Mp2, Codec::Mp3], true) => FrameHeader::parse(substr($tag->head, 1))->samples ?? $form->frameLength,
            default => $form->frameLength,
        };
    }
}
