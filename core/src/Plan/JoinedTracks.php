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
     * @param  int  $moment  samples of the source's time at which sound begins to count
     *
     * @throws CannotPlan where their rates differ or one cannot be decoded
     */
    public static function asOne(string $path, array $tracks, int $moment): Track
    {
        $first = $tracks[0]->sound ?? throw CannotPlan::noSound($path);
        $channels = 0;
        $bytes = 0;
        foreach ($tracks as $track) {
            if ($track->sound === null || $track->sound->rate !== $first->rate || ! Codecs::canDecode($track->sound)) {
                throw CannotPlan::notAlike($path, $track->number);
            }
            $channels += $track->sound->channels();
            $bytes += $track->codedBytes;
        }
        if ($channels > Layout::MOST_CHANNELS) {
            throw CannotPlan::notAlike($path, $tracks[count($tracks) - 1]->number);
        }
        $length = self::length($tracks, $moment, null);

        return Track::sound($tracks[0]->number, $first->withLayout(Layout::undeclared($channels)), Timeline::edited($moment, [Segment::media(0, $length)], $length), $bytes);
    }

    /**
     * What is presented of each, all made equally long.
     *
     * @param  non-empty-list<Track>  $tracks
     * @return list<list<Segment>>
     */
    public static function segments(array $tracks, int $moment, ?int $lasts): array
    {
        $length = self::length($tracks, $moment, $lasts);

        return array_map(fn (Track $track): array => $track->timeline->from($moment, $length), $tracks);
    }

    /** @param  non-empty-list<Track>  $tracks */
    private static function length(array $tracks, int $moment, ?int $lasts): int
    {
        return $lasts ?? max(array_map(fn (Track $track): int => Segment::total($track->timeline->from($moment)), $tracks));
    }
}
