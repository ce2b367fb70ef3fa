<?php

declare(strict_types=1);

namespace App\Queries;

use App\Models\CopiedFile;
use App\Models\CopiedFolder;
use App\Outside\Recorders\Recorder;
use App\Outside\Recorders\Recorders;
use App\Values\OutsideShelf;
use App\Values\PluggedRecorder;
use Illuminate\Database\Eloquent\Builder;

/** What is plugged in, and what on it is new. */
final class RecorderList
{
    public function __construct(private readonly Recorders $recorders, private readonly ShelfFiles $files) {}

    /** @return list<PluggedRecorder> */
    public function all(): array
    {
        $copies = CopiedFolder::query()->where('shelf', 'like', CopiedFolder::RECORDER.'%')->get()->keyBy('shelf');

        return array_map(fn (Recorder $one): PluggedRecorder => $this->plugged($one, $copies->get($one->shelf())), $this->recorders->all());
    }

    private function plugged(Recorder $recorder, ?CopiedFolder $copy): PluggedRecorder
    {
        try {
            $files = $this->files->of($recorder->files(), [''], true)->files;
        } catch (OutsideShelf) {
            $files = [];
        }
        $bytes = $new = $unchecked = 0;
        $known = $this->known($recorder);
        $signatures = $copy?->state === CopiedFolder::COPYING ? [] : FileSignatures::of($files);
        foreach ($files as $path => $real) {
            $facts = @stat($real) ?: null;
            $file = $known[(string) $path] ?? null;
            $bytes += $facts['size'] ?? 0;
            if ($facts === null || $file === null || $file->bytes !== $facts['size'] || $file->changed !== $facts['mtime']) {
                $new++;
            } elseif ($file->seen !== ($signatures[$path] ?? null)) {
                $unchecked++;
            }
        }

        return new PluggedRecorder($recorder->name, count($files), $new, $unchecked, $bytes, $copy);
    }

    /** @return array<array-key, CopiedFile> what of it a source holds, by path; of each path the newest */
    private function known(Recorder $recorder): array
    {
        return CopiedFile::query()->where('shelf', $recorder->shelf())->whereNotNull('sha256')
            ->where(fn (Builder $is) => $is->whereNotNull('source_id')->orWhereNotNull('same_as'))
            ->orderBy('id')->get(['path', 'bytes', 'changed', 'seen'])->keyBy('path')->all();
    }
}
