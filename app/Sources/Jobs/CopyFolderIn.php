<?php

declare(strict_types=1);

namespace App\Sources\Jobs;

use App\Sources\Actions\CopyIn;
use App\Sources\Models\CopiedFolder;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use Octavox\Core\Failure;
use Octavox\Core\InternalFault;
use Octavox\Core\Make\Interrupted;
use Octavox\Core\Parallel\Abandoned;

/** Copies a folder of a shelf in; begun again, it goes on where it was. */
final class CopyFolderIn implements ShouldQueue
{
    use Queueable;

    public int $tries = 3;

    public int $timeout = 0;

    public function __construct(private readonly int $copied)
    {
        $this->onQueue('copying');
    }

    public function handle(CopyIn $copy): void
    {
        $folder = CopiedFolder::query()->where('state', CopiedFolder::COPYING)->find($this->copied);
        if ($folder === null) {
            return;
        }
        try {
            $copy->of($folder);
        } catch (Abandoned|Interrupted) {
            // The worker is to end: the copy stays begun, and goes on after the next start.
            return;
        } catch (Failure $failure) {
            $folder->update(['state' => CopiedFolder::FAILED, 'says' => $failure->getMessage()]);
        }
    }

    public function failed(?\Throwable $why): void
    {
        CopiedFolder::query()->whereKey($this->copied)->update(['state' => CopiedFolder::FAILED,
            'says' => InternalFault::of($why ?? new \RuntimeException('The job failed.'))->getMessage()]);
    }
}
