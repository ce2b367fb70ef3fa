<?php

declare(strict_types=1);

namespace App\Files;

/** How much room there is where a folder lies, or will lie once it is made. */
final readonly class FreeSpace
{
    public function __construct(private PluggedDevices $devices) {}

    /** @return ?int bytes; null where nobody can tell */
    public function on(string $folder): ?int
    {
        $free = @disk_free_space(FolderDrive::there($folder));

        return $free === false ? null : min((int) $free, $this->devices->free($folder) ?? PHP_INT_MAX);
    }
}
