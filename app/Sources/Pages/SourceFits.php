<?php

declare(strict_types=1);

namespace App\Sources\Pages;

use App\Sources\Models\Source;
use Octavox\Core\Destination\Destination;
use Octavox\Core\Destination\Fit;
use Octavox\Core\Destination\LeastChange;
use Octavox\Core\Sound\InvalidLevel;

/** How sources stand to a destination as they are. */
final class SourceFits
{
    /**
     * @param  array<array-key, Source>  $sources  with their tracks
     * @return array<int, Fit> by source; those that are not read are left out
     *
     * @throws InvalidLevel
     */
    public function find(?Destination $destination, array $sources): array
    {
        $fits = [];
        if ($destination === null) {
            return $fits;
        }
        $known = collect($sources)->keyBy('id');
        foreach (Source::query()->whereKey($known->keys()->all())->get(['id', 'reading', 'catalogue']) as $row) {
            $facts = $row->facts();
            if ($facts !== null) {
                $first = $known[$row->id]?->soundTracks()->firstWhere('number', ($facts->sound()[0] ?? null)?->number);
                $fits[$row->id] = (new LeastChange($destination, $first?->measured()))->fit($facts);
            }
        }

        return $fits;
    }
}
