<?php

declare(strict_types=1);

namespace App\Outside\Publishing;

use App\Results\Models\Result;
use Illuminate\Support\Collection;
use Octavox\Core\Failure;

/** Offers results to a host, each by itself, and gathers what it answers. */
final class OfferToHost
{
    private const MOST = 50;

    /**
     * @param  Collection<int, Result>  $results
     * @return list<HostAnswer>
     */
    public function all(Host $host, Collection $results): array
    {
        return array_values($results->take(self::MOST)->map(fn (Result $one): HostAnswer => $this->one($host, $one))->all());
    }

    private function one(Host $host, Result $result): HostAnswer
    {
        if (! $result->isThere()) {
            return new HostAnswer($result->name, $host->title(), ['It is gone.']);
        }
        try {
            return new HostAnswer($result->name, $host->title(), $host->offer((string) $result->path, 'result-'.$result->id)->reasons);
        } catch (Failure $failure) {
            return new HostAnswer($result->name, $host->title(), [$failure->getMessage()]);
        }
    }
}
