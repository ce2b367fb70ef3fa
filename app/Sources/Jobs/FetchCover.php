<?php

declare(strict_types=1);

namespace App\Sources\Jobs;

use App\Files\Folder;
use App\Processes\AskedChild;
use App\Sources\Models\Source;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use Octavox\Core\Failure;

/** Fetches the picture of a source that was read before pictures were kept; what was read of it stays as it is. */
final class FetchCover implements ShouldQueue
{
    use Queueable;

    private const SECONDS = 60;

    public function __construct(private readonly int $source) {}

    public function handle(): void
    {
        $source = Source::query()->find($this->source);
        if ($source === null || is_file($source->coverPath())) {
            return;
        }
        Folder::ready(dirname($source->coverPath()));
        try {
            (new AskedChild('reading', self::SECONDS))
                ->answer(['path' => $source->path, 'cover' => $source->coverPath()], $source->path, "source-$source->id.log");
        } catch (Failure $failure) {
            $this->failed($failure);
        }
    }

    /** The source can be used without its picture. */
    public function failed(?\Throwable $why): void
    {
        if ($why !== null && ! $why instanceof Failure) {
            report($why);
        }
    }
}
