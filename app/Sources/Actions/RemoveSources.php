<?php

declare(strict_types=1);

namespace App\Sources\Actions;

use App\Files\BinFolder;
use App\Files\Folder;
use App\Files\RestoreFile;
use App\Files\Shelves;
use App\Sources\Models\Source;
use App\Sources\Models\Track;
use Illuminate\Support\Facades\File;

/** Takes sources off the list, puts them back, and in the end forgets them. A file on a shelf is never touched. */
final class RemoveSources
{
    public function __construct(private readonly BinFolder $folders, private readonly Shelves $shelves) {}

    /**
     * @param  list<int>  $ids
     * @return int how many were on the list
     */
    public function remove(array $ids): int
    {
        $removed = 0;
        foreach (array_chunk($ids, 500) as $part) {
            // What they stand for goes with them, and comes back with them.
            Source::query()->whereIn('belongs_to', $part)->update(['removed_at' => now()]);
            $removed += Source::query()->whereKey($part)->update(['removed_at' => now()]);
        }

        return $removed;
    }

    /**
     * Takes a source off the list and moves its file into the bin, where its shelf is open for writing; what was uploaded lies with us
     * already.
     *
     * @return bool whether it is in the bin now; else all is as it was
     */
    public function bin(Source $source): bool
    {
        $to = null;
        if (! $source->isOurs()) {
            // The files that a sheet names would stay behind, and other titles would lose their disc.
            $isMovable = ! $source->isSheet() && $source->discTitle() === null
                && $this->shelves->holding($source->path)?->isWritable === true;
            $folder = $isMovable ? $this->folders->place($source->path, 'source-'.$source->id) : null;
            if ($folder === null || ! is_file($source->path) || filesize($source->path) !== $source->bytes) {
                return false;
            }
            Folder::ready($folder);
            $to = $folder.'/'.basename($source->path);
        }
        // Written down first: whoever dies in between leaves the file where it was, and it is found there.
        $source->update(['binned' => $to, 'removed_at' => now()]);
        if ($to !== null && ! @rename($source->path, $to)) {
            $source->update(['binned' => null, 'removed_at' => null]);

            return false;
        }
        // What it stands for goes with it, and comes back with it.
        Source::query()->where('belongs_to', $source->id)->update(['removed_at' => now()]);

        return true;
    }

    /**
     * @param  list<int>  $ids
     * @return int how many are on the list again
     */
    public function putBack(array $ids): int
    {
        $back = 0;
        foreach (array_chunk($ids, 500) as $part) {
            Source::removed()->whereIn('belongs_to', $part)->whereNull('binned')->update(['removed_at' => null]);
            $back += Source::removed()->whereKey($part)->whereNull('binned')->update(['removed_at' => null]);
            /** @var Source $source */
            foreach (Source::removed()->whereKey($part)->whereNotNull('binned')->get() as $source) {
                $back += $this->moveBack($source) ? 1 : 0;
            }
        }

        return $back;
    }

    private function moveBack(Source $source): bool
    {
        $from = (string) $source->binned;
        $path = $source->path;
        if (is_file($from)) {
            $path = RestoreFile::to($from, $path) ?? '';
        }
        if (! is_file($path)) {
            return false;
        }
        @rmdir(dirname($from));

        return $source->update(['binned' => null, 'removed_at' => null, 'path' => $path, 'name' => basename($path)]);
    }

    /** For good: what was uploaded is deleted, what was drawn and measured of it is too. */
    public function forget(Source $source): void
    {
        if ($source->isOurs()) {
            $source->isShared() || File::deleteDirectory($source->ownFolder());
        } elseif ($source->binned !== null) {
            File::deleteDirectory(dirname($source->binned));
        }
        File::delete($source->soundTracks()->map(fn (Track $track): string => $track->waveformPath())->all());
        File::delete($source->coverPath());
        // What it stood for stands for itself from now on.
        Source::everyOne()->where('belongs_to', $source->id)->update(['belongs_to' => null]);
        $source->delete();
    }
}
