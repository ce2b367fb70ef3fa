<?php

declare(strict_types=1);

namespace App\Sources\Jobs;

use App\Sources\Actions\CopyIn;
use App\Sources\Models\CopiedFolder;
use App\Sources\Queries\PendingWork;
use App\Work\NextRow;
use App\Work\WorkKind;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use Octavox\Core\Failure;
use Octavox\Core\InternalFault;
use Octavox\Core\Make\Interrupted;
use Octavox\Core\Parallel\Abandoned;

/** Copies the next folder of a shelf in; begun again, it goes on where it was. */
final class CopyFolderIn implements ShouldQueue
{
    use Queueable;

    private const TRIES = 3;

    public int $tries = 0;

    public int $timeout = 0;

    public function handle(NextRow $next, PendingWork $pending, CopyIn $copy): void
    {
        $next->work(WorkKind::Copying, $pending->copies(), 'copied_folders.id', self::TRIES,
            fn (int $id) => $this->copy(CopiedFolder::query()->find($id), $copy),
            fn (int $id, ?\Throwable $why) => CopiedFolder::query()->whereKey($id)->update(['state' => CopiedFolder::FAILED,
                'says' => InternalFault::of($why ?? new \RuntimeException('It was interrupted.'))->getMessage()]));
    }

    /** @throws Interrupted where the worker is to end: the copy stays begun, and goes on after the next start */
    private function copy(?CopiedFolder $folder, CopyIn $copy): void
    {
        if ($folder === null) {
            return;
        }
        try {
            $copy->copyIn($folder);
        } catch (Interrupted $stopped) {
            throw $stopped;
        } catch (Abandoned) {
            throw Interrupted::now($folder->heading());
        } catch (Failure $failure) {
            $folder->update(['state' => CopiedFolder::FAILED, 'says' => $failure->getMessage()]);
        }
    }
}
