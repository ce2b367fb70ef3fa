<?php

declare(strict_types=1);

namespace App\Sources\Queries;

use App\Sources\Models\Source;
use Illuminate\Database\Eloquent\Collection;

/** Sources on the list that somebody names by their numbers. */
final class NamedSources
{
    /**
     * @param  list<int>  $numbers
     * @param  int  $most  of the numbers that are looked at
     * @return Collection<int, Source> with their tracks, in the order of their numbers
     */
    public function all(array $numbers, int $most): Collection
    {
        return Source::query()->with('tracks')->whereKey(array_slice($numbers, 0, $most))->orderBy('id')->get();
    }

    public function one(int $number): ?Source
    {
        return Source::query()->find($number);
    }
}
