<?php

declare(strict_types=1);

namespace App\Watching\Values;

/** A file in a folder that is watched, as it is now. */
final readonly class WatchedFile
{
    /**
     * @param  string  $path  from the folder on
     * @param  string  $identity  device and number on it
     * @param  int  $bytes  of it and of the files that belong to it
     * @param  int  $changed  the last of them, in seconds since the start of 1970
     * @param  ?string  $besides  why it is no recording by itself; null where it is one, or nothing is known of it
     */
    public function __construct(public string $path, public string $real, public string $identity, public int $bytes,
        public int $changed, public ?string $besides = null) {}
}
