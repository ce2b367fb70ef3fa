<?php

declare(strict_types=1);

namespace App\Queries;

use App\Models\Result;

/** Which files are results of before: a folder that is taken in again must not bring its own results in as sources. */
final class MadeHere
{
    private const AT_ONCE = 500;

    /**
     * @param  list<string>  $paths
     * @return array<string, true> those that were made here, as keys
     */
    public function of(array $paths): array
    {
        $made = [];
        foreach (array_chunk($paths, self::AT_ONCE) as $part) {
            foreach (Result::query()->whereIn('path', $part)->get(['id', 'path']) as $result) {
                $made[(string) $result->path] = true;
            }
        }

        return $made;
    }
}
