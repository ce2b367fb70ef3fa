<?php

declare(strict_types=1);

namespace App\Results\Queries;

use App\Results\Models\Result;
use App\Results\Values\ResultState;
use Illuminate\Contracts\Database\Query\Builder;

/** How fast this machine made such results lately, in times real time. */
final class MeasuredSpeed
{
    private const LATELY = 20;

    /** Null before anything of the kind was made. */
    public function find(string $format): ?float
    {
        $speeds = Result::query()->where('state', ResultState::Done)->whereNotNull('speed')
            ->where(fn (Builder $query) => $query->where('plan->target->container', $format)->orWhere('plan->format', $format))
            ->latest('id')->limit(self::LATELY)->pluck('speed');

        return $speeds->isEmpty() ? null : (float) $speeds->median();
    }
}
