<?php

declare(strict_types=1);

namespace App\Sources\Actions;

use App\Sources\Models\Source;
use App\Sources\Models\Upload;
use App\Sources\Values\SourceState;
use App\Work\WorkKind;
use App\Work\WorkSignal;
use Illuminate\Database\Eloquent\Builder;
use Octavox\Core\Disc\DiscFolder;
use Octavox\Core\Name\LegalName;
use Octavox\Core\Reading\FolderRecordings;

/**
 * What was brought in together from one folder lies together where one file stands for others: the files of a video disc, an image and its
 * sheet, in whichever order they arrive. The others then stand behind it on the list.
 */
final class LinkCompanions
{
    public function __construct(private readonly WorkSignal $signal) {}

    /** Files that are brought in together and looked at: a disc has about a hundred. */
    private const MOST_FILES = 2000;

    /**
     * Where a file lies within the folder that it alone has: the first file of a disc in folders called as those that it came in, because
     * these are the disc's name.
     *
     * @return string with a slash before each; empty for all others
     */
    public static function within(string $name, string $folder): string
    {
        $folders = array_filter(explode('/', $folder), fn (string $one): bool => ! in_array($one, ['', '.'], true));
        $names = DiscFolder::first([$name]) === null ? [] : array_slice($folders, -2);

        return implode('', array_map(fn (string $one): string => '/'.LegalName::file($one), $names));
    }

    /** Once an upload is a source. */
    public function around(Upload $upload): void
    {
        $beside = Upload::query()->where('dropped', $upload->dropped)->where('folder', $upload->folder)->whereNotNull('source_id');
        if ($upload->dropped !== '' && (clone $beside)->where(fn (Builder $is) => $is->where('name', 'like', '%.cue')
            ->orWhere('name', 'like', DiscFolder::FIRST))->exists()) {
            $uploads = $beside->orderBy('created_at')->limit(self::MOST_FILES)->get(['name', 'source_id']);
            $sources = Source::query()->whereKey($uploads->pluck('source_id'))->get(['id', 'path', 'same_as'])->keyBy('id');
            $brought = [];
            foreach ($uploads as $one) {
                $source = $sources->get($one->source_id);
                if ($source !== null) {
                    $brought[] = [$one->name, $source];
                }
            }
            $this->among($brought);
        }
    }

    /**
     * @param  list<array{string, Source}>  $sources  that came from one folder, each in a folder of its own now, and as they were called
     */
    public function among(array $sources): void
    {
        $twins = Source::everyOne()->whereKey(array_filter(array_map(fn (array $one): ?int => $one[1]->same_as, $sources)))
            ->get(['id', 'path'])->keyBy('id');
        $paths = $files = [];
        foreach ($sources as [$name, $source]) {
            $paths[$name] ??= $source->path;
            // Of a file that came twice only the first is kept.
            $files[$name] ??= is_file($source->path) ? $source->path : ($twins->get($source->same_as)->path ?? '');
        }
        $names = array_map(strval(...), array_keys($paths));
        foreach ($sources as [$name, $source]) {
            if (FolderRecordings::mayStandForOthers($name) && $paths[$name] === $source->path) {
                // It may be called otherwise here; the others are named as it names them.
                $own = basename($source->path);
                $recordings = FolderRecordings::of(dirname($source->path), [...array_values(array_diff($names, [$name])), $own]);
                $this->complete($source, [$own => $source->path] + $paths, $files, $recordings);
            }
        }
    }

    /**
     * @param  array<string, string>  $paths  of all, by name
     * @param  array<string, string>  $files  where their bytes lie, by name
     */
    private function complete(Source $source, array $paths, array $files, FolderRecordings $recordings): void
    {
        $name = basename($source->path);
        $isNew = false;
        $parts = $recordings->parts($name);
        foreach ($parts as $part) {
            $beside = dirname($source->path).'/'.$part;
            // The same bytes under a second name: nothing is copied, and each goes when its own source goes.
            $isNew = ! is_file($beside) && is_file($files[$part]) && @link($files[$part], $beside) || $isNew;
        }
        foreach ($parts === [] ? [$name] : $parts as $one) {
            $before = $recordings->before($one);
            $leader = $before === null ? null : Source::query()->where('path', $paths[$before] ?? '')->orderBy('id')->value('id');
            if ($leader !== null) {
                Source::query()->where('path', $paths[$one])->whereNull('belongs_to')->update(['belongs_to' => $leader]);
            }
        }
        if ($isNew) {
            // Read before all was there.
            $unread = Source::query()->where('path', $source->path)->where('state', '!=', SourceState::Ready)
                ->where(fn (Builder $is) => $is->whereNull('error_code')->orWhere('error_code', '!=', RecordReading::TWICE))->get();
            foreach ($unread as $title) {
                $title->update(['state' => SourceState::Reading]);
                $this->signal->announce(WorkKind::Reading);
            }
        }
    }
}
