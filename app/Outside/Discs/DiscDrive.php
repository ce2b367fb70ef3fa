<?php

declare(strict_types=1);

namespace App\Outside\Discs;

/** A drive for discs. */
interface DiscDrive
{
    /** What stands for the disc that is in it: an image, a sheet, or the first file of a folder; null where the tray is empty. */
    public function disc(): ?string;

    /** @return list<string> names of the discs that lie ready to be put in */
    public function beside(): array;

    /** @throws DriveRefuses */
    public function eject(): void;

    /** @throws DriveRefuses */
    public function insert(string $name): void;
}
