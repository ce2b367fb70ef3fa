<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

use Octavox\Core\Codec\Codecs;
use Octavox\Core\Media\Segment;
use Octavox\Core\Media\Timeline;
use Octavox\Core\Media\Track;
use Octavox\Core\Sound\Layout;

/** Several sound tracks of a source taken together: their channels, one track after another, are the channels of one sound. */
final class JoinedTracks
{
    /**
     * The one track that they are as: as long as the longest, its channels without a place.
     *
     * @param  non-empty-list<Track>  $tracks
     * @param  int  $presentationStart  samples of the source's time at which sound begins to count
     *
     * @throws CannotPlan where their rates differ or one cannot be decoded
     */
    public static function asOne(string $path, array $tracks, int $presentationStart): Track
    {
        $first = $tracks[0]->sound ?? throw (new Violations\NoSound)->at($path);
        $channels = 0;
        $bytes = 0;
        foreach ($tracks as $track) {
            if ($track->sound === null || $track->sound->rate !== $first->rate || ! Codecs::canDecode($track->sound)) {
                throw (new Violations\NotAlike(track: $track->number))->at($path);
            }
            $channels += $track->sound->channels();
            $bytes += $track->codedBytes;
        }
        if ($channels > Layout::MOST_CHANNELS) {
            throw (new Violations\NotAlike(track: $tracks[count($tracks) - 1]->number))->at($path);
        }
        $length = self::length($tracks, $presentationStart, null);

        return Track::sound($tracks[0]->number, $first->withLayout(Layout::undeclared($channels)),
            Timeline::edited($presentationStart, [Segment::media(0, $length)], $length), $bytes);
    }

    /**
     * What is presented of each, all made equally long.
     *
     * @param  non-empty-list<Track>  $tracks
     * @return list<list<Segment>>
     */
    public static function segments(array $tracks, int $presentationStart, ?int $duration): array
    {
        $length = self::length($tracks, $presentationStart, $duration);

        return array_map(fn (Track $track): array => $track->timeline->from($presentationStart, $length), $tracks);
    }

    /** @param  non-empty-list<Track>  $tracks */
    private static function length(array $tracks, int $presentationStart, ?int $duration): int
    {
        return $duration ?? max(array_map(fn (Track $track): int => Segment::total($track->timeline->from($presentationStart)), $tracks));
    }
}
