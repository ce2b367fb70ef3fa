<?php

declare(strict_types=1);

namespace App\Orders\Queries;

use App\Files\Pictures;
use App\Sources\Models\Source;
use Octavox\Core\Order\OutputSpec;

/** The cover that a result will have, as a page shows it. */
final class ShownCover
{
    /** @return ?array{string, int|string} its route and what that takes; null where it will have none, or none that can be shown */
    public static function of(Source $source, OutputSpec $spec): ?array
    {
        if ($spec->cover === null) {
            return ($source->facts()->cover ?? '') === '' ? null : ['source.cover', $source->id];
        }
        $name = Pictures::name($spec->cover);

        return $name === null ? null : ['picture', $name];
    }
}
