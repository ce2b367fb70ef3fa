<?php

declare(strict_types=1);

namespace App\Processes;

use App\Files\Folder;

/** Held by one process of this machine at a time; it goes with the process. */
final class FileLock
{
    /** @param  resource  $handle */
    private function __construct(private $handle, private readonly string $path) {}

    /** @return ?self null where another process holds it */
    public static function take(string $name): ?self
    {
        $folder = config()->string('octavox.home').'/locks';
        Folder::ready($folder);
        $path = "$folder/$name";
        do {
            $handle = @fopen($path, 'c');
            if ($handle === false || ! flock($handle, LOCK_EX | LOCK_NB)) {
                return null;
            }
            clearstatcache(true, $path);
            // Whoever held it may have taken the file away between the two.
        } while ((fstat($handle)['ino'] ?? 0) !== @fileinode($path));

        return new self($handle, $path);
    }

    /**
     * One of so many that may be held at once.
     *
     * @return ?self null where all are held
     */
    public static function takeOne(string $name, int $count): ?self
    {
        for ($number = 1; $number <= $count; $number++) {
            if (($lock = self::take("$name-$number")) !== null) {
                return $lock;
            }
        }

        return null;
    }

    public function release(): void
    {
        if (is_resource($this->handle)) {
            @unlink($this->path);
            fclose($this->handle);
        }
    }
}
