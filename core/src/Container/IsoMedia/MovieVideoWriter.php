<?php

declare(strict_types=1);

namespace Octavox\Core\Container\IsoMedia;

use Octavox\Core\Bytes\ByteSink;
use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\FileUnwritable;
use Octavox\Core\Container\Video\AuxiliarySample;
use Octavox\Core\Container\Video\AuxiliaryTrack;
use Octavox\Core\Container\Video\PictureSample;
use Octavox\Core\Container\Video\PictureStream;
use Octavox\Core\Container\Video\VideoParts;
use Octavox\Core\Container\Video\VideoSound;
use Octavox\Core\Container\Video\VideoWriter;
use Octavox\Core\Failure;
use Octavox\Core\Media\Packet;

/**
 * Writes a video as MP4 or QuickTime, index first: one picture track, its sound, and chapters as a text track that the picture refers to.
 */
final class MovieVideoWriter implements VideoWriter
{
    private readonly MovieStream $movie;

    private readonly StreamTrack $picture;

    /** @var list<StreamTrack> */
    private readonly array $tracks;

    /** @var list<AuxiliaryWriter> */
    private readonly array $auxiliaries;

    private readonly ?ChapterTrack $chapters;

    private readonly int $timescale;

    private readonly PictureStream $stream;

    private readonly int $first;

    /** @var list<VideoSound> */
    private readonly array $sounds;

    /**
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function __construct(ByteSink $sink, bool $quickTime, VideoParts $parts)
    {
        $this->stream = $stream = $parts->picture;
        $this->first = $parts->first;
        $this->sounds = $sounds = $parts->sounds;
        [$tags, $chapters, $seconds, $auxiliaries] = [$parts->tags, $parts->chapters, $parts->seconds, $parts->auxiliaries];
        // No sample of any sound is shorter than a tick, so that begins and lengths come back to the sample.
        $rates = array_map(fn (VideoSound $sound): int => $sound->audio->rate, $sounds);
        $this->timescale = $rates === [] ? $stream->timescale : max($rates);
        $shown = $stream->spacing === null ? $stream->width
            : (int) round($stream->width * $stream->spacing[0] / max(1, $stream->spacing[1]));
        $this->auxiliaries = array_map(fn (AuxiliaryTrack $auxiliary): AuxiliaryWriter => AuxiliaryWriter::of($auxiliary, $quickTime,
            $shown, $stream->height), $auxiliaries);
        $references = $chapters === [] ? [] : ['chap' => 2 + count($sounds) + count($auxiliaries)];
        foreach ($auxiliaries as $index => $auxiliary) {
            $references += $auxiliary->coding === 'tmcd' ? ['tmcd' => 2 + count($sounds) + $index] : [];
        }
        $this->picture = new StreamTrack('vide', PictureEntry::box($stream, $quickTime), $stream->timescale, 0, $shown, $stream->height,
            $stream->language ?? 'und', $stream->matrix, '', $references);
        $tracks = [$this->picture];
        foreach ($sounds as $sound) {
            $tracks[] = new StreamTrack('soun', SoundEntry::box($sound->audio, $quickTime, $sound->first), $sound->audio->rate,
                $sound->audio->frameBytes(), language: $sound->language ?? 'und', name: $sound->name);
        }
        foreach ($this->auxiliaries as $auxiliary) {
            $tracks[] = $auxiliary->track;
        }
        $this->chapters = $chapters === [] ? null : new ChapterTrack($chapters, $seconds);
        if ($this->chapters !== null) {
            $tracks[] = $this->chapters->track;
        }
        $this->tracks = $tracks;
        $room = MovieStream::indexBytes((int) ($seconds * max(30.0, $stream->perSecond) * 6),
            0) + strlen(ItemListWriter::box($tags)) + strlen($stream->entry);
        foreach ($sounds as $sound) {
            $room += MovieStream::indexBytes($sound->audio->pcm === null
                ? intdiv($sound->samples, max(64, $sound->audio->frameLength ?: 960)) + 8 : 0, (int) $seconds + 1);
        }
        $this->movie = new MovieStream($sink, $quickTime ? 'qt  ' : 'isom', $tracks, $tags, $this->timescale,
            $room + ChapterTrack::INDEX_BYTES * count($chapters) + count($auxiliaries) * MovieStream::indexBytes((int) $seconds,
                (int) $seconds + 1));
    }

    public function step(): float
    {
        return 0.5;
    }

    /**
     * @throws FileUnreadable
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws Failure
     */
    public function picture(PictureSample $sample): void
    {
        $this->movie->copy(0, $sample->data, $sample->duration, $sample->pts - $sample->dts, $sample->key);
    }

    /**
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function sound(int $sound, Packet $packet): void
    {
        $this->movie->write(1 + $sound, $packet->data, $packet->length);
    }

    /**
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function auxiliary(int $auxiliary, AuxiliarySample $sample): void
    {
        $this->auxiliaries[$auxiliary]->take($sample, $this->movie, 1 + count($this->sounds) + $auxiliary);
    }

    /**
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function finish(): void
    {
        foreach ($this->auxiliaries as $index => $auxiliary) {
            $auxiliary->finish($this->movie, 1 + count($this->sounds) + $index, $this->timescale);
        }
        $this->chapters?->write($this->movie, count($this->tracks) - 1);
        $shown = (int) round($this->picture->mediaTicks() * $this->timescale / $this->stream->timescale);
        $this->picture->present([new Edit($shown, $this->first)]);
        foreach ($this->sounds as $index => $sound) {
            $scale = $this->timescale / $sound->audio->rate;
            $late = $sound->late > 0 ? [new Edit((int) round($sound->late * $scale), -1)] : [];
            $this->tracks[1 + $index]->present([...$late, new Edit((int) round($sound->samples * $scale), $sound->skip)]);
        }
        $this->movie->finish();
    }
}
