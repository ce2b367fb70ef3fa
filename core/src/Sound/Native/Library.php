<?php

declare(strict_types=1);

namespace Octavox\Core\Sound\Native;

/** Opens a shared library once a process, with the prototypes that are used of it. */
final class Library
{
    /** @var array<string, \FFI> */
    private static array $opened = [];

    /**
     * @param  list<string>  $names  file names to try in turn
     * @param  string  $package  the Debian package that brings it, for the error sentence
     *
     * @throws LibraryMissing
     */
    public static function open(string $prototypes, array $names, string $package): \FFI
    {
        $key = $names[0];
        if (isset(self::$opened[$key])) {
            return self::$opened[$key];
        }
        if (! class_exists(\FFI::class) || PHP_SAPI !== 'cli') {
            throw LibraryMissing::noCalls();
        }
        // Vector routines of blocks this short lose more by waking threads than they gain.
        putenv('OPENBLAS_NUM_THREADS=1');
        foreach ($names as $name) {
            try {
                return self::$opened[$key] = \FFI::cdef($prototypes, $name);
            } catch (\FFI\Exception) {
                continue;
            }
        }
        throw LibraryMissing::named($key, $package);
    }
}
