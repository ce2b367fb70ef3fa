<?php

declare(strict_types=1);

namespace Octavox\Core\Media;

/**
 * Where time begins in a source: with its picture, so that sound and picture fit when both are laid at the same point; without a picture
 * with the first sound, whatever the file's clock says.
 */
final class PresentationStart
{
    /**
     * @param  list<Track>  $tracks
     * @param  int  $rate  Hz
     * @return int samples on the file's clock
     */
    public static function find(array $tracks, int $rate): int
    {
        $starts = INF;
        foreach ($tracks as $track) {
            if ($track->picture !== null) {
                return (int) round($track->picture->startOffset * $rate);
            }
            if ($track->sound !== null) {
                $starts = min($starts, $track->timeline->startOffset / max(1, $track->sound->rate));
            }
        }

        return is_finite($starts) ? (int) round($starts * $rate) : 0;
    }
}
