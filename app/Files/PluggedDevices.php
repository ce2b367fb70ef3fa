<?php

declare(strict_types=1);

namespace App\Files;

/** Folders of what can be pulled out, and holds what it holds whatever drive stands for it. */
interface PluggedDevices
{
    /** Whether a folder is that of a device, be it plugged in or not. */
    public function areMeantBy(string $folder): bool;

    /** @return ?int bytes that are free on the device that a folder lies on; null where it lies on none that is plugged in */
    public function free(string $folder): ?int;
}
