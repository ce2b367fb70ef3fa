<?php

declare(strict_types=1);

namespace App\Processes;

use App\Values\Folder;

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
        $handle = @fopen("$folder/$name", 'c');

        return $handle !== false && flock($handle, LOCK_EX | LOCK_NB) ? new self($handle, "$folder/$name") : null;
    }

    public function release(): void
    {
        @unlink($this->path);
        fclose($this->handle);
    }
}
