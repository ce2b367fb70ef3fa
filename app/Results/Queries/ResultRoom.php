<?php

declare(strict_types=1);

namespace App\Results\Queries;

use App\Files\FolderDrive;
use App\Results\Models\Result;
use App\Settings\Queries\KeptFree;

/** Whether there is room for what is to be made. */
final readonly class ResultRoom
{
    public function __construct(private KeptFree $room) {}

    /** Whether its drive has room for it, as far as that can be told. */
    public function isThereFor(Result $result): bool
    {
        $target = $result->plan['target'] ?? null;
        $folder = is_array($target) && is_string($target['folder'] ?? null) ? $target['folder'] : '';
        // What is no drive at all has no room to wait for.
        $isDrive = str_starts_with($folder, '/') && (float) @disk_total_space(FolderDrive::there($folder)) > 0.0;

        return ! $isDrive || $this->room->isRoomFor($result->neededBytes(), $folder);
    }
}
