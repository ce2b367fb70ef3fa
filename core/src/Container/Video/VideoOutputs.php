<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Video;

use Octavox\Core\Container\IsoMedia\MovieVideo;
use Octavox\Core\Container\Matroska\MatroskaVideo;

/** The registry: every kind of video that can be made. */
final class VideoOutputs
{
    /** @return non-empty-list<VideoOutputFormat> */
    public static function all(): array
    {
        return [MovieVideo::mp4(), MovieVideo::quickTime(), MatroskaVideo::matroska(), MatroskaVideo::web()];
    }

    public static function named(string $name): ?VideoOutputFormat
    {
        foreach (self::all() as $format) {
            if ($format->name() === $name) {
                return $format;
            }
        }

        return null;
    }
}
