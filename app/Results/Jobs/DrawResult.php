<?php

declare(strict_types=1);

namespace App\Results\Jobs;

use App\Files\Folder;
use App\Processes\AskedChild;
use App\Processes\FileLock;
use App\Results\Models\Result;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use Illuminate\Support\Facades\File;
use Octavox\Core\Failure;
use Octavox\Core\Plan\PlanUnreadable;

/** Has the waveform of a finished result written, in a process of its own. */
final class DrawResult implements ShouldQueue
{
    use Queueable;

    private const SECONDS_SILENT = 120;

    public int $tries = 2;

    public int $timeout = 0;

    public function __construct(private readonly int $result) {}

    /** @throws PlanUnreadable */
    public function handle(): void
    {
        $result = Result::query()->find($this->result);
        $track = $result?->isThere() === true && ! $result->isVideo() ? 1 : null;
        if ($result === null || $track === null || is_file($result->waveformPath())) {
            return;
        }
        // Whose worker is killed leaves a part that nobody holds.
        $lock = FileLock::take("drawing-$result->id");
        if ($lock === null) {
            return;
        }
        Folder::ready(dirname($result->waveformPath()));
        $asked = ['path' => $result->path, 'track' => $track, 'stated' => $result->statedFormat(),
            'waveform' => $result->waveformPath().'.part'];
        try {
            (new AskedChild('analysis', null, self::SECONDS_SILENT, isBrief: false))
                ->answer($asked, (string) $result->path, "result-$result->id-waveform.log");
            @rename($result->waveformPath().'.part', $result->waveformPath());
        } catch (Failure $failure) {
            $this->failed($failure);
        } finally {
            $lock->release();
        }
    }

    /** The result is right without its drawing; an empty one says that there will be none. */
    public function failed(?\Throwable $why): void
    {
        $result = Result::query()->find($this->result);
        if ($result !== null) {
            Folder::ready(dirname($result->waveformPath()));
            File::delete($result->waveformPath().'.part');
            @touch($result->waveformPath());
        }
    }
}
