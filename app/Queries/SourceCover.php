<?php

declare(strict_types=1);

namespace App\Queries;

use App\Models\Source;

/** The picture that stands for the sound, as it was kept when the source was read. */
final class SourceCover
{
    /** @return ?array{string, string} its media type and where it is; null where there is none */
    public function of(Source $source): ?array
    {
        $type = $source->facts()->cover ?? '';

        return $type === '' || ! is_file($source->coverPath()) ? null : [$type, $source->coverPath()];
    }
}
