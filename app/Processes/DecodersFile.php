<?php

declare(strict_types=1);

namespace App\Processes;

/** Where it stands which programs decode what nobody here can: every process reads it. */
final class DecodersFile
{
    public static function path(): string
    {
        return config()->string('octavox.home').'/decoders.json';
    }
}
