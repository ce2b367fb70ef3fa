<?php

declare(strict_types=1);

namespace App\Results\Actions;

use App\Results\Models\Result;
use App\Results\Values\ManyResults;
use Illuminate\Support\Collection;

/** Does one thing with many results; what it does not fit is left as it is. */
final class ChangeResults
{
    public function __construct(private readonly ChangeResult $change, private readonly BinResult $bin) {}

    /**
     * @param  Collection<int, Result>  $results
     * @return string what came of it, in one sentence
     */
    public function each(Collection $results, ManyResults $what): string
    {
        $done = 0;
        foreach ($results as $result) {
            $done += $this->one($result, $what) ? 1 : 0;
        }
        if ($done === 0 && $what === ManyResults::Bin) {
            return 'None was put into the bin: they are gone, or lie on another drive than the bin of Octavox.';
        }
        $files = $done === 1 ? 'One result' : number_format($done).' results';

        return match ($what) {
            ManyResults::Retry => $files.' begun again.',
            ManyResults::Cancel => $files.' cancelled.',
            ManyResults::Forget => $files.' taken off the list; the files stay where they are.',
            ManyResults::Bin => $files.' put into the bin; they can be put back from there.',
            ManyResults::PutBack => $files.' put back.',
            ManyResults::Destroy => $files.' deleted for good.',
            ManyResults::Download, ManyResults::Disc, ManyResults::Player, ManyResults::Page, ManyResults::Publish => '',
        };
    }

    private function one(Result $result, ManyResults $what): bool
    {
        $fits = match ($what) {
            ManyResults::Retry => $result->state->canBeRetried(),
            ManyResults::Cancel => $result->state->isOpen(),
            ManyResults::Forget => ! $result->state->isOpen(),
            ManyResults::PutBack, ManyResults::Destroy => $result->binned !== null,
            default => true,
        };
        if (! $fits) {
            return false;
        }
        match ($what) {
            ManyResults::Retry => $this->change->retry($result),
            ManyResults::Cancel => $this->change->cancel($result),
            ManyResults::Forget => $this->bin->forget($result),
            ManyResults::Destroy => $this->bin->destroy($result),
            ManyResults::Bin => $fits = $this->bin->bin($result),
            ManyResults::PutBack => $fits = $this->bin->putBack($result),
            ManyResults::Download, ManyResults::Disc, ManyResults::Player, ManyResults::Page, ManyResults::Publish => null,
        };

        return $fits;
    }
}
