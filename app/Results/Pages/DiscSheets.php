<?php

declare(strict_types=1);

namespace App\Results\Pages;

use App\Files\TakenNames;
use App\Results\Models\Result;
use Illuminate\Support\Collection;
use Octavox\Core\Container\Cue\SheetUnusable;
use Octavox\Core\Plan\DiscSheet;
use Octavox\Core\Plan\Plan;

/** The sheet by which other programs write results on an audio disc. */
final class DiscSheets
{
    /**
     * @param  Collection<int, Result>  $results  in the order of the tracks
     *
     * @throws SheetUnusable
     */
    public function write(Collection $results): string
    {
        $names = new TakenNames;

        return DiscSheet::text(array_values($results->map(fn (Result $one): Plan => $one->plannedAs())->all()),
            array_values($results->map(fn (Result $one): string => $names->free(basename($one->pathInOrder())))->all()));
    }
}
