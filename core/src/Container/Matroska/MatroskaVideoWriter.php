<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Matroska;

use Octavox\Core\Bytes\ByteSink;
use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\FileUnwritable;
use Octavox\Core\Container\Video\AuxiliarySample;
use Octavox\Core\Container\Video\AuxiliaryTrack;
use Octavox\Core\Container\Video\PictureSample;
use Octavox\Core\Container\Video\PictureStream;
use Octavox\Core\Container\Video\SubtitleText;
use Octavox\Core\Container\Video\VideoParts;
use Octavox\Core\Container\Video\VideoSound;
use Octavox\Core\Container\Video\VideoWriter;
use Octavox\Core\Failure;
use Octavox\Core\Media\Packet;

/** Writes a video as Matroska or WebM; what of the sound is not presented at the end stands in its last block. */
final class MatroskaVideoWriter implements VideoWriter
{
    private readonly MatroskaWriter $writer;

    /** @var array<int, Packet> the last packet of each sound, until it is known whether another comes */
    private array $held = [];

    /** @var array<int, int> samples written of each sound */
    private array $samples = [];

    private readonly PictureStream $stream;

    private readonly int $first;

    /** @var list<VideoSound> */
    private readonly array $sounds;

    /** @var list<AuxiliaryTrack> */
    private readonly array $auxiliaries;

    /**
     * @param  bool  $isWeb  whether WebM is written, which carries no attachments
     *
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function __construct(ByteSink $sink, bool $isWeb, VideoParts $parts)
    {
        $this->stream = $stream = $parts->picture;
        $this->first = $parts->first;
        $this->sounds = $sounds = $parts->sounds;
        $this->auxiliaries = $auxiliaries = $parts->auxiliaries;
        $tracks = [MatroskaPicture::track($stream)];
        foreach ($sounds as $sound) {
            $tracks[] = MatroskaTrack::sound($sound->audio, $sound->skip, $sound->language, $sound->name);
        }
        foreach ($auxiliaries as $auxiliary) {
            $tracks[] = self::isForeign($auxiliary)
                ? MatroskaTrack::text('S_TEXT/UTF8', '', $auxiliary->language, $auxiliary->name)
                : MatroskaTrack::text($auxiliary->coding, $auxiliary->description, $auxiliary->language, $auxiliary->name);
        }
        $this->writer = new MatroskaWriter($sink, $isWeb ? 'webm' : 'matroska', $tracks, $parts->tags, $parts->chapters, $isWeb ? []
            : $parts->attachments);
    }

    public function step(): float
    {
        return 0.0;
    }

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     * @throws FileUnwritable
     * @throws Failure
     */
    public function picture(PictureSample $sample): void
    {
        $this->writer->write(0, $sample->data, $this->nanoseconds($sample->pts - $this->first, $this->stream->timescale), $sample->key,
            $this->nanoseconds($sample->duration, $this->stream->timescale));
    }

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     * @throws FileUnwritable
     * @throws Failure
     */
    public function sound(int $sound, Packet $packet): void
    {
        $this->give($sound, 0);
        $this->held[$sound] = $packet;
    }

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     * @throws FileUnwritable
     * @throws Failure
     */
    public function auxiliary(int $auxiliary, AuxiliarySample $sample): void
    {
        $own = $this->auxiliaries[$auxiliary];
        $data = self::isForeign($own) ? (string) SubtitleText::read($own->coding, $sample->data) : $sample->data;
        // Where nothing is shown Matroska has no block.
        if ($data !== '') {
            $this->writer->write(1 + count($this->sounds) + $auxiliary, $data, $this->nanoseconds($sample->pts, $own->timescale), true,
                $this->nanoseconds($sample->duration, $own->timescale));
        }
    }

    /** Whether it comes from a container that codes text in another way. */
    private static function isForeign(AuxiliaryTrack $auxiliary): bool
    {
        return $auxiliary->handler !== '';
    }

    /**
     * @throws FileUnwritable
     * @throws FileUnreadable
     * @throws BytesMissing
     * @throws Failure
     */
    public function finish(): void
    {
        foreach ($this->sounds as $index => $sound) {
            $coded = ($this->samples[$index] ?? 0) + ($this->held[$index]->length ?? 0);
            $this->give($index, max(0, $coded - $sound->skip - $sound->samples));
        }
        $this->writer->finish();
    }

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     * @throws FileUnwritable
     * @throws Failure
     */
    private function give(int $index, int $discard): void
    {
        $packet = $this->held[$index] ?? null;
        if ($packet === null) {
            return;
        }
        $sound = $this->sounds[$index];
        $at = ($this->samples[$index] ?? 0) + $sound->late;
        $rate = $sound->audio->rate;
        $this->writer->write(1 + $index, $packet->data, $this->nanoseconds($at, $rate), true, $this->nanoseconds($packet->length, $rate),
            $this->nanoseconds($discard, $rate));
        $this->samples[$index] = ($this->samples[$index] ?? 0) + $packet->length;
        unset($this->held[$index]);
    }

    private function nanoseconds(int $value, int $perSecond): int
    {
        return (int) round($value * 1e9 / max(1, $perSecond));
    }
}
