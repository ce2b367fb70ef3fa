<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Film;

use Octavox\Core\Container\IsoMedia\MovieFilm;
use Octavox\Core\Container\Matroska\MatroskaFilm;

/** The registry: every kind of film that can be made. */
final class Films
{
    /** @return non-empty-list<FilmFormat> */
    public static function all(): array
    {
        return [MovieFilm::mp4(), MovieFilm::quickTime(), MatroskaFilm::matroska(), MatroskaFilm::web()];
    }

    public static function named(string $name): ?FilmFormat
    {
        foreach (self::all() as $format) {
            if ($format->name() === $name) {
                return $format;
            }
        }

        return null;
    }
}
