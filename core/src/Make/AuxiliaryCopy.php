<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Container\Video\AuxiliarySample;
use Octavox\Core\Container\Video\AuxiliarySource;
use Octavox\Core\Container\Video\AuxiliaryTrack;
use Octavox\Core\Container\Video\SubtitleText;
use Octavox\Core\Media\Track;

/** Subtitles or a time code on their way into a video, in the time of its picture. */
final class AuxiliaryCopy
{
    private readonly \HashContext $hash;

    /** @var \Generator<int, AuxiliarySample> */
    public readonly \Generator $samples;

    private function __construct(public readonly AuxiliaryTrack $auxiliary, AuxiliarySource $source, Track $track, float $pictureStarts)
    {
        $this->hash = hash_init('xxh128');
        $this->samples = $this->shifted($source, $track, (int) round($pictureStarts * $auxiliary->timescale));
    }

    /** @param  float  $pictureStarts  seconds of the source's time */
    public static function of(AuxiliarySource $source, Track $track, float $pictureStarts): ?self
    {
        $auxiliary = $source->auxiliary($track);

        return $auxiliary === null ? null : new self($auxiliary, $source, $track, $pictureStarts);
    }

    /** Seconds at which the next begins; INF where all are written. */
    public function next(): float
    {
        return $this->samples->valid() ? $this->samples->current()->pts / $this->auxiliary->timescale : INF;
    }

    /** What {@see self::hash()} of the result must be: of plain text what is shown, of everything else the bytes. */
    public function written(): string
    {
        return hash_final($this->hash);
    }

    /** What is compared of one sample. */
    public static function essence(AuxiliaryTrack $auxiliary, string $data): string
    {
        $text = SubtitleText::read($auxiliary->coding, $data);

        // Texts shown at once are joined in some containers, one beneath the other.
        return $text === null ? $data : (string) preg_replace('/\s+/u', '', $text);
    }

    /**
     * The number of the frame at which a time code begins, so many ticks later: QuickTime File Format Specification, "Timecode Sample
     * Description".
     */
    private function counted(string $data, int $ticks): string
    {
        $entry = $this->auxiliary->description;
        /** @var array{rate: int, frame: int}|false $times */
        $times = strlen($entry) < 32 || strlen($data) < 4 ? false : unpack('Nrate/Nframe', $entry, 24);
        if ($times === false || $times['frame'] === 0) {
            return $data;
        }
        /** @var array{first: int} $number */
        $number = unpack('Nfirst', $data);

        return pack('N', $number['first'] + (int) round($ticks * $times['rate'] / $this->auxiliary->timescale / $times['frame']))
            .substr($data, 4);
    }

    /** @return \Generator<int, AuxiliarySample> */
    private function shifted(AuxiliarySource $source, Track $track, int $shift): \Generator
    {
        foreach ($source->auxiliarySamples($track) as $sample) {
            $starts = max(0, $sample->pts - $shift);
            $duration = $sample->duration - ($starts - ($sample->pts - $shift));
            $cut = $sample->duration - $duration;
            // What is over before the picture begins is never shown.
            if ($duration > 0 || $sample->duration === 0) {
                $data = $this->auxiliary->coding === 'tmcd' && $cut > 0 ? $this->counted($sample->data, $cut) : $sample->data;
                hash_update($this->hash, self::essence($this->auxiliary, $data));
                yield new AuxiliarySample($data, $starts, max(0, $duration));
            }
        }
    }
}
