<?php

declare(strict_types=1);

namespace App\Results\Actions;

use App\Database\RetryWrite;
use App\Files\CopyFailed;
use App\Files\Folder;
use App\Files\Shelves;
use App\Results\Models\Result;
use App\Results\Models\SafeCopy;
use App\Settings\Queries\Settings;
use App\Sources\Actions\CheckedCopy;
use App\Sources\Models\Source;
use Octavox\Core\Name\NumberedName;
use Octavox\Core\Parallel\Abandoned;

/**
 * Copies a source before anything is made of it, reads the copy again from its drive, and writes its sum down beside it as `sha256sum`
 * checks
 * it. What is half copied is called otherwise and is copied anew.
 */
final class CopySafely
{
    private const SUMS = 'SHA256SUMS';

    public function __construct(private readonly Settings $settings, private readonly Shelves $shelves,
        private readonly CheckedCopy $copy) {}

    /**
     * @param  callable(int): bool  $goOn  told how many bytes are done, copied and read again; says whether to go on
     *
     * @throws CopyFailed
     * @throws Abandoned where it was not to go on
     */
    public function before(Result $result, callable $goOn): void
    {
        $source = $result->source;
        if (! $result->order->care->copies() || $source === null || $this->isThere($result)) {
            return;
        }
        if ($source->discTitle() !== null) {
            throw CopyFailed::disc($source->path);
        }
        if ($source->isSheet()) {
            throw CopyFailed::sheet($source->path);
        }
        $folder = $this->folder().sprintf('/%04d', $result->order_id);
        Folder::ready($folder);
        $lock = @fopen("$folder/.$source->id.lock", 'c') ?: throw CopyFailed::unwritable($folder);
        // Another result of the same source waits until its copy stands.
        while (! flock($lock, LOCK_EX | LOCK_NB)) {
            $goOn(0) || throw Abandoned::now();
            usleep(100_000);
        }
        try {
            if (! $this->isThere($result)) {
                Folder::as($folder, fn () => $this->place($result, $source, $folder, $goOn));
            }
        } finally {
            @unlink("$folder/.$source->id.lock");
            fclose($lock);
        }
    }

    private function isThere(Result $result): bool
    {
        $known = SafeCopy::query()->where('order_id', $result->order_id)->where('source_id', $result->source_id)->first();

        return $known !== null && is_file($known->path);
    }

    private function folder(): string
    {
        $shelf = $this->shelves->named($this->settings->text(Settings::COPIES_ON));

        return $shelf?->isWritable === true ? $shelf->root.'/Safe copies' : SafeCopy::folder();
    }

    /**
     * @param  callable(int): bool  $goOn
     *
     * @throws CopyFailed
     * @throws Abandoned
     */
    private function place(Result $result, Source $source, string $folder, callable $goOn): void
    {
        $partial = "$folder/.$source->id.part";
        try {
            $sum = $this->copy->copy($source->path, $partial, $goOn);
            for ($number = 1; ; $number++) {
                $path = $folder.'/'.NumberedName::write(basename($source->path), $number);
                // A link is made in one step, and only where nothing is.
                if (@link($partial, $path)) {
                    break;
                }
                file_exists($path) || throw CopyFailed::unwritable($folder);
            }
        } finally {
            @unlink($partial);
        }
        @file_put_contents("$folder/".self::SUMS, $sum.'  '.basename($path)."\n", FILE_APPEND | LOCK_EX);
        RetryWrite::write(fn () => SafeCopy::query()->updateOrCreate(['order_id' => $result->order_id, 'source_id' => $source->id],
            ['path' => $path, 'sha256' => $sum]));
    }
}
