<?php

declare(strict_types=1);

namespace Octavox\Core\Reading;

use Octavox\Core\Container\Track;
use Octavox\Core\Tag\Tags;

/** All facts about a source, and the findings about it. */
final readonly class Reading
{
    /**
     * @param  list<Track>  $tracks
     * @param  list<Finding>  $findings
     */
    public function __construct(
        public string $path,
        public string $container,
        public int $bytes,
        public float $seconds,
        public array $tracks,
        public Tags $tags,
        public array $findings,
        public int $bytesRead,
    ) {
    }

    /** @return array<string, mixed> as `read --json` prints it */
    public function toArray(): array
    {
        return [
            'path' => $this->path,
            'container' => $this->container,
            'bytes' => $this->bytes,
            'seconds' => round($this->seconds, 6),
            'tracks' => array_map(self::track(...), $this->tracks),
            'tags' => (object) $this->tags->values(),
            'cover' => $this->tags->cover === null ? null : ['type' => $this->tags->cover->type, 'bytes' => strlen($this->tags->cover->bytes)],
            'chapters' => [],
            'findings' => array_map(fn (Finding $finding): array => $finding->toArray(), $this->findings),
            'bytes_read' => $this->bytesRead,
        ];
    }

    /** @return array<string, mixed> */
    private static function track(Track $track): array
    {
        $common = ['number' => $track->number, 'kind' => $track->kind->value, 'language' => $track->language, 'bytes' => $track->codedBytes];
        $kbps = $track->seconds() > 0 ? round($track->codedBytes / $track->seconds() / 125, 1) : 0;
        if ($track->sound !== null) {
            $rate = max(1, $track->sound->rate);

            return [...$common,
                'codec' => $track->sound->codec->value,
                'form' => $track->sound->label(),
                'rate' => $track->sound->rate,
                'channels' => $track->sound->channels(),
                'layout' => $track->sound->layout->name(),
                'bits' => $track->sound->bits(),
                'kbps' => $kbps,
                'samples' => $track->timeline->samples(),
                'starts' => round($track->timeline->starts / $rate, 6),
                'seconds' => round($track->seconds(), 6),
                'skipped' => $track->timeline->segments === [] ? 0 : $track->timeline->segments[0]->from ?? 0,
            ];
        }
        if ($track->picture !== null) {
            return [...$common,
                'codec' => $track->picture->codec->value,
                'form' => $track->picture->label,
                'width' => $track->picture->width,
                'height' => $track->picture->height,
                'rate' => round($track->picture->perSecond, 3),
                'kbps' => $kbps,
                'starts' => round($track->picture->starts, 6),
                'seconds' => round($track->seconds(), 6),
            ];
        }

        return [...$common, 'codec' => 'text', 'form' => 'text'];
    }
}
