<?php

declare(strict_types=1);

namespace App\Files;

/** Pictures that were brought in to be covers; each is called by the sum of its bytes, so that the same one lies there once. */
final class Pictures
{
    private const NAME = '/^[0-9a-f]{64}\.(jpg|png)$/D';

    /** Where a picture lies or would lie; null where it cannot be the name of one. */
    public static function path(string $name): ?string
    {
        return preg_match(self::NAME, $name) === 1 ? self::folder().'/'.$name : null;
    }

    public static function folder(): string
    {
        return config()->string('octavox.home').'/pictures';
    }

    /** The name of a picture by where it lies; null where it lies elsewhere. */
    public static function name(string $path): ?string
    {
        $name = basename($path);

        return self::path($name) === $path ? $name : null;
    }

    /** Path of a picture that is there; null where it is not. */
    public static function there(string $name): ?string
    {
        $path = self::path($name);

        return $path !== null && is_file($path) ? $path : null;
    }
}
