<?php

declare(strict_types=1);

namespace App\Queries;

use App\Models\Track;
use Octavox\Core\Bytes\FileBytes;
use Octavox\Core\Failure;
use Octavox\Core\Listening\Ribbon;

/** Ribbons as far as they are drawn. */
final class OpenRibbon
{
    public function of(Track $track): ?Ribbon
    {
        return $this->at($track->ribbonPath());
    }

    public function at(string $path): ?Ribbon
    {
        try {
            return is_file($path) ? Ribbon::open(FileBytes::open($path)) : null;
        } catch (Failure) {
            // It is being begun at this very moment.
            return null;
        }
    }
}
