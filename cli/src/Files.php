<?php

declare(strict_types=1);

namespace Octavox\Cli;

/** The files that paths stand for: a folder stands for all files below it. */
final class Files
{
    /**
     * @param  list<string>  $paths
     * @return iterable<string> in the order given, those of a folder by name; hidden ones are left out
     */
    public static function under(array $paths): iterable
    {
        foreach ($paths as $path) {
            if (! is_dir($path)) {
                yield $path;

                continue;
            }
            $names = scandir($path) ?: [];
            foreach ($names as $name) {
                if (! str_starts_with($name, '.')) {
                    yield from self::under([rtrim($path, '/').'/'.$name]);
                }
            }
        }
    }
}
