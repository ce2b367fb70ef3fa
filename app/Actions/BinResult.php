<?php

declare(strict_types=1);

namespace App\Actions;

use App\Models\Result;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\File;
use Octavox\Core\Name\NumberedName;

/** Puts the files of results into the bin, from which they come back, and takes results off the list. */
final class BinResult
{
    private const MOST_NUMBERS = 1000;

    /** @return bool whether it lies in the bin now; it stays where it is where it cannot be moved */
    public function bin(Result $result): bool
    {
        if (! $result->isThere()) {
            return false;
        }
        $folder = sprintf('%s/bin/%d', config()->string('octavox.home'), $result->id);
        File::ensureDirectoryExists($folder);
        $to = $folder.'/'.basename((string) $result->path);
        if (! @rename((string) $result->path, $to)) {
            return false;
        }
        $result->update(['binned' => $to]);

        return true;
    }

    /** Under its own name, or where that is taken by now under one with a number. */
    public function putBack(Result $result): bool
    {
        $from = $result->binned;
        if ($from === null || ! is_file($from)) {
            return false;
        }
        $folder = dirname((string) $result->path);
        File::ensureDirectoryExists($folder);
        for ($number = 1; $number < self::MOST_NUMBERS; $number++) {
            $path = $folder.'/'.NumberedName::of(basename((string) $result->path), $number);
            // A link is made in one step, and only where nothing is.
            if (! file_exists($path) && (@link($from, $path) ? unlink($from) : rename($from, $path))) {
                $result->update(['binned' => null, 'path' => $path, 'name' => basename($path)]);
                @rmdir(dirname($from));

                return true;
            }
        }

        return false;
    }

    /** For good. */
    public function destroy(Result $result): void
    {
        if ($result->binned !== null) {
            File::deleteDirectory(dirname($result->binned));
            $this->forget($result);
        }
    }

    /** @return int how many files were deleted for good */
    public function empty(): int
    {
        /** @var list<Result> $binned */
        $binned = Result::query()->whereNotNull('binned')->get()->all();
        array_map($this->destroy(...), $binned);

        return count($binned);
    }

    /** Off the list; a file that is not in the bin stays where it is. */
    public function forget(Result $result): void
    {
        if ($result->state->isOpen()) {
            return;
        }
        DB::transaction(function () use ($result): void {
            $order = $result->order;
            $result->delete();
            if ($order->results()->doesntExist()) {
                $order->delete();
            }
        });
        File::delete([$result->waveformPath(), $result->logPath()]);
    }
}
