<?php

declare(strict_types=1);

namespace Octavox\Core\Analysis;

use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Media\Track;
use Octavox\Core\Reading\Finding;
use Octavox\Core\Reading\Reading;
use Octavox\Core\Tag\Chapter;

/** What was read of a source and measured on it, as scripts get it. */
final class ReadingDocument
{
    /**
     * @param  array<int, Measurements>  $analyses  by the track's number
     * @param  list<Finding>  $more  findings of the analyses
     * @return array<string, mixed>
     */
    public static function write(Reading $reading, array $analyses = [], array $more = []): array
    {
        $cover = $reading->tags->cover;
        $analysis = array_map(fn (int $number, Measurements $measured): array => ['track' => $number] + $measured->toArray(),
            array_keys($analyses), $analyses);

        return [
            'path' => $reading->path,
            'container' => $reading->container,
            'bytes' => $reading->bytes,
            'seconds' => round($reading->seconds, 6),
            'tracks' => array_map(self::track(...), $reading->tracks),
            'tags' => (object) $reading->tags->toArray(),
            'cover' => $cover === null ? null : ['type' => $cover->type, 'bytes' => strlen($cover->bytes)],
            'chapters' => array_map(fn (Chapter $chapter): array => $chapter->toArray(), $reading->chapters),
            'findings' => array_map(fn (Finding $finding): array => $finding->toArray(), [...$reading->findings, ...$more]),
            'bytes_read' => $reading->bytesRead,
            'stated' => $reading->stated === null ? null : (string) $reading->stated,
        ] + ($analysis === [] ? [] : ['analysis' => $analysis]);
    }

    /** @return array<string, mixed> */
    private static function track(Track $track): array
    {
        $common = [
            'number' => $track->number, 'kind' => $track->kind->value, 'language' => $track->language, 'bytes' => $track->codedBytes,
            'codec' => $track->codecName(), 'format' => CodecModules::describeTrack($track),
        ];
        $sound = $track->sound;
        $picture = $track->picture;

        return match (true) {
            $sound !== null => $common + [
                'rate' => $sound->rate, 'channels' => $sound->channels(), 'layout' => $sound->layout->name(), 'bits' => $sound->bits(),
                'kbps' => $track->kbps(), 'rate_mode' => Reading::rateMode($sound), 'delay' => $track->timeline->skipped(),
                'samples' => $track->timeline->samples(),
                'starts' => round($track->timeline->startOffset / max(1, $sound->rate), 6), 'seconds' => round($track->seconds(), 6),
            ],
            $picture !== null => $common + [
                'width' => $picture->width, 'height' => $picture->height, 'rate' => round($picture->perSecond, 3), 'kbps' => $track->kbps(),
                'starts' => round($picture->startOffset, 6), 'seconds' => round($track->seconds(), 6),
            ],
            default => $common,
        };
    }
}
