<?php

declare(strict_types=1);

namespace App\Results\Queries;

use App\Files\BinFolder;
use App\Files\ReplacedFile;
use App\Lists\Humanize;
use App\Results\Models\Result;
use App\Sources\Models\Source;
use Illuminate\Database\Eloquent\Collection;
use Illuminate\Support\Facades\DB;
use Octavox\Core\Make\ReplacedFiles;

/**
 * What was taken away and can come back: files of results, files that results replaced, sources that were taken off the list, their files.
 */
final class Bin
{
    private const MOST = 500;

    /** @var ?list<ReplacedFile> */
    private ?array $replaced = null;

    public function __construct(private readonly BinFolder $folders) {}

    /** @var ?array{int, int} files and their bytes */
    private ?array $measured = null;

    /** @return Collection<int, Result> those put there last first */
    public function results(): Collection
    {
        return Result::query()->from(DB::raw('results indexed by results_binned'))->select(['id', 'order_id', 'name', 'path', 'binned',
            'bytes', 'updated_at'])
            ->with('order')->whereNotNull('binned')->orderByDesc('updated_at')->orderByDesc('id')->limit(self::MOST)->get();
    }

    /** @return list<ReplacedFile> files whose place a result has taken, those that were put there last first */
    public function replaced(): array
    {
        if ($this->replaced === null) {
            $folders = array_merge([], ...array_map(fn (string $bin): array => glob($bin.'/'.ReplacedFiles::PREFIX.'*', GLOB_NOSORT) ?: [],
                $this->folders->all()));
            $this->replaced = array_values(array_filter(array_map(ReplacedFile::in(...), $folders)));
            usort($this->replaced, fn (ReplacedFile $one, ReplacedFile $other): int => $other->since <=> $one->since);
        }

        return $this->replaced;
    }

    /** @return Collection<int, Source> those taken off the list last first */
    public function sources(): Collection
    {
        return Source::removed()->latest('removed_at')->limit(self::MOST)->get();
    }

    /** What becomes of a source's file where it is deleted for good. */
    public function fate(Source $source): string
    {
        return match (true) {
            $source->binned !== null => 'moved here from '.dirname($source->path),
            $source->origin === 'upload' => 'came by upload',
            $source->origin === 'recorder' => 'copied from '.$source->came_from,
            default => 'stays on its shelf in any case',
        };
    }

    public function isEmpty(): bool
    {
        return $this->measured()[0] === 0;
    }

    public function bytes(): int
    {
        return $this->measured()[1];
    }

    public function says(): string
    {
        [$count, $bytes] = $this->measured();

        return sprintf('%s, %s', $count === 1 ? 'One thing' : number_format($count).' things', Humanize::bytes($bytes));
    }

    /** @return array{int, int} */
    private function measured(): array
    {
        if ($this->measured === null) {
            $results = Result::query()->from(DB::raw('results indexed by results_in_bin'))->whereNotNull('binned')
                ->selectRaw('count(*) as files, sum(bytes) as bytes')->toBase()->first();
            $sources = Source::removed()->from(DB::raw('sources indexed by sources_removed'))
                ->selectRaw("count(*) as files, sum(case when origin != 'shelf' or binned is not null then bytes "
                .'else 0 end) as bytes')->toBase()->first();
            $replaced = array_sum(array_map(fn (ReplacedFile $one): int => $one->bytes, $this->replaced()));
            $this->measured = [(int) ($results->files ?? 0) + (int) ($sources->files ?? 0) + count($this->replaced()),
                (int) ($results->bytes ?? 0) + (int) ($sources->bytes ?? 0) + $replaced];
        }

        return $this->measured;
    }
}
