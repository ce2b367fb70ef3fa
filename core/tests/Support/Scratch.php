<?php

declare(strict_types=1);

namespace Octavox\Core\Tests\Support;

/** A folder for files of the tests, emptied afterwards. */
final class Scratch
{
    private static ?string $folder = null;

    public static function path(string $name): string
    {
        if (self::$folder === null) {
            self::$folder = sys_get_temp_dir().'/octavox-test-'.getmypid().'-'.bin2hex(random_bytes(4));
            mkdir(self::$folder);
            // Whatever it was begun for, be it a worker among several; a process that is forked leaves it alone.
            $own = getmypid();
            register_shutdown_function(fn () => $own === getmypid() ? self::clear() : null);
        }

        return self::$folder.'/'.$name;
    }

    public static function folder(): string
    {
        $folder = self::path(bin2hex(random_bytes(6)));
        mkdir($folder);

        return $folder;
    }

    public static function write(string $name, string $bytes): string
    {
        $path = self::folder().'/'.$name;
        file_put_contents($path, $bytes);

        return $path;
    }

    /** A file of $size bytes that takes no room: holes between the given pieces. @param  array<int, string>  $pieces by offset */
    public static function sparse(string $name, int $size, array $pieces): string
    {
        $path = self::folder().'/'.$name;
        $file = fopen($path, 'w+b');
        ftruncate($file, $size);
        foreach ($pieces as $offset => $bytes) {
            fseek($file, $offset);
            fwrite($file, $bytes);
        }
        fclose($file);

        return $path;
    }

    public static function clear(): void
    {
        if (self::$folder !== null) {
            exec('rm -rf '.escapeshellarg(self::$folder));
            self::$folder = null;
        }
    }
}
