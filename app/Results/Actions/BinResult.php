<?php

declare(strict_types=1);

namespace App\Results\Actions;

use App\Files\BinFolder;
use App\Files\Folder;
use App\Files\RestoreFile;
use App\Results\Models\Result;
use Illuminate\Database\QueryException;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\File;

/** Puts the files of results into the bin, from which they come back, and takes results off the list. */
final class BinResult
{
    public function __construct(private readonly BinFolder $folders) {}

    /** @return bool whether it lies in the bin now; it stays where it is where it cannot be moved */
    public function bin(Result $result): bool
    {
        if (! $result->isThere()) {
            return false;
        }
        $folder = $this->folders->place((string) $result->path, (string) $result->id);
        if ($folder === null) {
            return false;
        }
        Folder::ready($folder);
        $to = $folder.'/'.basename((string) $result->path);
        if (! @rename((string) $result->path, $to)) {
            return false;
        }
        try {
            $result->update(['binned' => $to]);
        } catch (QueryException $unwritten) {
            // Nobody would know where it lies.
            @rename($to, (string) $result->path);

            throw $unwritten;
        }

        return true;
    }

    /** Under its own name, or where that is taken by now under one with a number. */
    public function putBack(Result $result): bool
    {
        $from = $result->binned;
        if ($from === null || ! is_file($from)) {
            return false;
        }
        $path = RestoreFile::to($from, (string) $result->path);
        if ($path !== null) {
            $result->update(['binned' => null, 'path' => $path, 'name' => basename($path)]);
            @rmdir(dirname($from));
        }

        return $path !== null;
    }

    /** For good. */
    public function destroy(Result $result): void
    {
        if ($result->binned !== null) {
            File::deleteDirectory(dirname($result->binned));
            $this->forget($result);
        }
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
            if (Result::ofOrder($order)->doesntExist()) {
                $order->delete();
            }
        });
        File::delete([$result->waveformPath(), $result->logPath()]);
    }
}
