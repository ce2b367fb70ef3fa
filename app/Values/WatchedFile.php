<?php

declare(strict_types=1);

namespace App\Values;

/** A file in a folder that is watched, as it is now. */
final readonly class WatchedFile
{
    /**
     * @param  string  $path  from the folder on
     * @param  string  $identity  device and number on it
     * @param  int  $changed  seconds since the begin of 1970
     */
    public function __construct(public string $path, public string $real, public string $identity, public int $bytes,
        public int $changed) {}
}
