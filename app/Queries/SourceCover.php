<?php

declare(strict_types=1);

namespace App\Queries;

use App\Models\Source;
use Octavox\Core\Container\Containers;
use Octavox\Core\Failure;
use Octavox\Core\Tag\Cover;

/** The picture that stands for the sound, out of the file itself. */
final class SourceCover
{
    public function of(Source $source): ?Cover
    {
        try {
            return Containers::openFile($source->path)->tags()->cover;
        } catch (Failure) {
            return null;
        }
    }
}
