<?php

declare(strict_types=1);

namespace App\Sources\Pages;

use App\Files\FileSignatures;
use App\Files\OutsideShelf;
use App\Files\ShelfFiles;
use App\Sources\Models\CopiedFile;
use App\Sources\Models\CopiedFolder;
use App\Sources\Recorders\Recorder;
use App\Sources\Recorders\Recorders;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Collection;

/** What is plugged in, and what on it is new. */
final class RecorderList
{
    /** @var ?array<array-key, array<array-key, CopiedFile>> */
    private ?array $known = null;

    public function __construct(private readonly Recorders $recorders, private readonly ShelfFiles $files) {}

    /** @return list<PluggedRecorder> */
    public function all(): array
    {
        $this->known = null;
        $copies = CopiedFolder::query()->where('shelf', 'like', CopiedFolder::RECORDER.'%')->get()->keyBy('shelf');

        return array_map(fn (Recorder $one): PluggedRecorder => $this->plugged($one, $copies->get($one->shelf())), $this->recorders->all());
    }

    private function plugged(Recorder $recorder, ?CopiedFolder $copy): PluggedRecorder
    {
        try {
            $files = $this->files->find($recorder->files(), [''], true)->files;
        } catch (OutsideShelf) {
            $files = [];
        }
        $bytes = $new = $unchecked = 0;
        $known = $this->known($recorder);
        $signatures = $copy?->state === CopiedFolder::COPYING ? [] : FileSignatures::read($files);
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

    /**
     * What of it a source holds, by path; of each path the newest. All recorders are asked for at once.
     *
     * @return array<array-key, CopiedFile>
     */
    private function known(Recorder $recorder): array
    {
        $this->known ??= CopiedFile::query()
            ->whereIn('shelf', array_map(fn (Recorder $one): string => $one->shelf(), $this->recorders->all()))->whereNotNull('sha256')
            ->where(fn (Builder $is) => $is->whereNotNull('source_id')->orWhereNotNull('same_as'))
            ->orderBy('id')->get(['shelf', 'path', 'bytes', 'changed', 'seen'])->groupBy('shelf')
            ->map(fn (Collection $files): array => $files->keyBy('path')->all())->all();

        return $this->known[$recorder->shelf()] ?? [];
    }
}
