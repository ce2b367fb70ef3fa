<?php

declare(strict_types=1);

namespace Octavox\Cli;

/** Where Octavox keeps what belongs to this machine. */
final class Home
{
    /** @param  string  $name  of what is kept there: a file or a folder, which need not be there yet */
    public static function path(string $name): string
    {
        return (getenv('OCTAVOX_HOME') ?: dirname(__DIR__, 2).'/storage/app/octavox').'/'.$name;
    }
}
