<?php

declare(strict_types=1);

namespace App\Orders\Queries;

use App\Files\Pictures;
use App\Sources\Models\Source;
use Octavox\Core\Order\OutputSpec;

/** The cover that a result will have, as a page shows it. */
final class ShownCover
{
    /** @return ?string an address; null where it will have none, or none that can be shown */
    public static function of(Source $source, OutputSpec $spec): ?string
    {
        if ($spec->cover === null) {
            return ($source->facts()->cover ?? '') === '' ? null : route('source.cover', $source);
        }
        $name = Pictures::name($spec->cover);

        return $name === null ? null : route('picture', $name);
    }
}
