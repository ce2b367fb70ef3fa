<?php

declare(strict_types=1);

namespace App\Results\Queries;

use App\Results\Models\Result;
use App\Results\Models\SafeCopy;

/** Which files are results or safe copies of before: a folder that is taken in again must not bring its own results in as sources. */
final class MadeHere
{
    private const AT_ONCE = 500;

    /**
     * @param  list<string>  $paths
     * @return array<string, true> those that were made here, as keys
     */
    public function find(array $paths): array
    {
        $made = [];
        foreach (array_chunk($paths, self::AT_ONCE) as $part) {
            foreach (Result::query()->whereIn('path', $part)->get(['id', 'path']) as $result) {
                $made[(string) $result->path] = true;
            }
            $made += array_fill_keys(array_filter(SafeCopy::query()->whereIn('path', $part)->pluck('path')->all(), is_string(...)), true);
        }

        return $made;
    }
}
