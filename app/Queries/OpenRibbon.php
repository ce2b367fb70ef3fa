<?php

declare(strict_types=1);

namespace App\Queries;

use App\Models\Track;
use Octavox\Core\Bytes\FileBytes;
use Octavox\Core\Failure;
use Octavox\Core\Listening\Ribbon;

/** The ribbons of a track as far as they are drawn. */
final class OpenRibbon
{
    public function of(Track $track): ?Ribbon
    {
        try {
            return is_file($track->ribbonPath()) ? Ribbon::open(FileBytes::open($track->ribbonPath())) : null;
        } catch (Failure) {
            // It is being begun at this very moment.
            return null;
        }
    }
}
