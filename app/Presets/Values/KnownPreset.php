<?php

declare(strict_types=1);

namespace App\Presets\Values;

use Illuminate\Support\Carbon;
use Octavox\Core\Destination\Destination;
use Octavox\Core\Order\Recipe;

/** A recipe or a destination, and how it is used here. */
final readonly class KnownPreset
{
    /** @param  bool  $isOwn  whether somebody made it here; else it ships with Octavox */
    public function __construct(public Recipe|Destination $what, public bool $isOwn, public bool $starred = false,
        public ?Carbon $usedAt = null) {}
}
