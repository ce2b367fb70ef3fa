<?php

declare(strict_types=1);

namespace App\Sources\Queries;

use App\Sources\Models\Track;
use Octavox\Core\Analysis\Waveform;
use Octavox\Core\Bytes\FileBytes;
use Octavox\Core\Failure;

/** Waveforms as far as they are drawn. */
final class OpenWaveform
{
    public function open(Track $track): ?Waveform
    {
        return $this->at($track->waveformPath());
    }

    public function at(string $path): ?Waveform
    {
        try {
            return is_file($path) ? Waveform::open(FileBytes::open($path)) : null;
        } catch (Failure) {
            // It is being begun at this very moment.
            return null;
        }
    }
}
