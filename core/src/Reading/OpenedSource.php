<?php

declare(strict_types=1);

namespace Octavox\Core\Reading;

use Octavox\Core\Codec\DamageLog;
use Octavox\Core\Container\Demuxer;
use Octavox\Core\Container\NoTracks;
use Octavox\Core\Container\StatedAs;
use Octavox\Core\Media\Track;
use Octavox\Core\Media\TrackKind;

/** An opened source with its tracks as they will be decoded. */
final readonly class OpenedSource
{
    /**
     * @param  list<Track>  $tracks
     * @param  ?StatedAs  $stated  as what somebody wants it opened
     * @param  DamageLog  $damage  what is found damaged while its sound is decoded
     */
    public function __construct(public Demuxer $media, public array $tracks, public ?StatedAs $stated = null,
        public DamageLog $damage = new DamageLog) {}

    /** @return list<Track> */
    public function sound(): array
    {
        return array_values(array_filter($this->tracks, fn (Track $track): bool => $track->kind === TrackKind::Sound));
    }

    public function picture(): ?Track
    {
        foreach ($this->tracks as $track) {
            if ($track->kind === TrackKind::Picture) {
                return $track;
            }
        }

        return null;
    }

    public function track(int $number): ?Track
    {
        foreach ($this->tracks as $track) {
            if ($track->number === $number) {
                return $track;
            }
        }

        return null;
    }

    /**
     * Length of the longest track in seconds.
     *
     * @throws NoTracks
     */
    public function seconds(): float
    {
        if ($this->tracks === []) {
            throw NoTracks::at($this->media->source()->name());
        }

        return max(array_map(fn (Track $track): float => $track->seconds(), $this->tracks));
    }
}
