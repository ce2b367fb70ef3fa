<?php

declare(strict_types=1);

namespace App\Results\Actions;

use App\Files\ReplacedFile;
use App\Files\RestoreFile;
use App\Results\Models\Result;
use App\Results\Queries\Bin;
use App\Sources\Actions\RemoveSources;
use App\Sources\Models\Source;
use Illuminate\Support\Facades\File;

/** Gives back what is in the bin, or deletes it for good. */
final class EmptyBin
{
    private const MOST_ROUNDS = 1000;

    public function __construct(private readonly BinResult $results, private readonly RemoveSources $sources, private readonly Bin $bin) {}

    /**
     * @param  list<int>  $results
     * @param  list<int>  $sources
     * @param  list<string>  $replaced  marks of files that results replaced
     * @return string what came of it, in one sentence
     */
    public function back(array $results, array $sources, array $replaced = []): string
    {
        $back = $this->sources->putBack($sources);
        foreach (Result::query()->whereKey($results)->get() as $result) {
            $back += $this->results->putBack($result) ? 1 : 0;
        }
        foreach ($this->named($replaced) as $file) {
            $back += $this->putBack($file) ? 1 : 0;
        }
        $left = count($results) + count($sources) + count($replaced) - $back;

        return match (true) {
            $back + $left === 0 => 'Nothing was marked, so nothing was done.',
            $left > 0 => sprintf('%d of %d could not be put back: the file is gone, or nothing can be written where it was.', $left,
                $left + $back),
            default => sprintf('%s put back where it was.', $back === 1 ? 'One' : number_format($back)),
        };
    }

    /**
     * @param  list<int>  $results
     * @param  list<int>  $sources
     * @param  list<string>  $replaced  marks of files that results replaced
     */
    public function destroy(array $results, array $sources, array $replaced = []): string
    {
        $gone = 0;
        /** @var Result $result */
        foreach (Result::query()->whereKey($results)->whereNotNull('binned')->get() as $result) {
            $this->results->destroy($result);
            $gone++;
        }
        foreach (Source::removed()->with('tracks')->whereKey($sources)->get() as $source) {
            $this->sources->forget($source);
            $gone++;
        }

        foreach ($this->named($replaced) as $file) {
            $gone += File::deleteDirectory($file->folder()) ? 1 : 0;
        }

        return match ($gone) {
            0 => 'Nothing was marked, so nothing was done.',
            1 => 'One was deleted for good.',
            default => number_format($gone).' were deleted for good.',
        };
    }

    /**
     * @param  list<string>  $marks
     * @return list<ReplacedFile>
     */
    private function named(array $marks): array
    {
        return $marks === [] ? [] : array_values(array_filter($this->bin->replaced(),
            fn (ReplacedFile $one): bool => in_array($one->mark(), $marks, true)));
    }

    /** Under its own name, or where the result has that under one with a number. */
    private function putBack(ReplacedFile $file): bool
    {
        $isBack = RestoreFile::to($file->path, $file->was) !== null;

        return $isBack && File::deleteDirectory($file->folder());
    }

    public function all(): string
    {
        $replaced = array_map(fn (ReplacedFile $one): string => $one->mark(), $this->bin->replaced());
        $this->destroy([], [], $replaced);
        $gone = count($replaced);
        for ($round = 0; $round < self::MOST_ROUNDS; $round++) {
            [$results, $sources] = [$this->bin->results(), $this->bin->sources()];
            $gone += $results->count() + $sources->count();
            $this->destroy(array_values($results->modelKeys()), array_values($sources->modelKeys()));
            if ($results->isEmpty() && $sources->isEmpty()) {
                break;
            }
        }

        return $gone === 1 ? 'One was deleted for good.' : number_format($gone).' were deleted for good.';
    }
}
