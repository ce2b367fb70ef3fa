<?php

declare(strict_types=1);

namespace App\Sources\Actions;

use App\Sources\Models\CopiedFolder;
use App\Work\WorkKind;
use App\Work\WorkSignal;

/** Has a folder copied in, or goes on with one that failed; the originals stay. */
final readonly class BeginCopy
{
    public function __construct(private WorkSignal $signal) {}

    public function begin(string $shelf, string $folder): CopiedFolder
    {
        $copied = CopiedFolder::query()->firstOrNew(['shelf' => $shelf, 'folder' => $folder]);
        $copied->fill(['state' => CopiedFolder::COPYING, 'done' => 0, 'says' => ''])->save();
        $this->signal->announce(WorkKind::Copying);

        return $copied;
    }
}
