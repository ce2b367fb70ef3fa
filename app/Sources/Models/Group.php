<?php

declare(strict_types=1);

namespace App\Sources\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\HasMany;

/**
 * Sources that belong together, under a name.
 *
 * @property int $id
 * @property string $title
 * @property ?string $mark  of the drop or the folder that it came by
 * @property \Illuminate\Database\Eloquent\Collection<int, Source> $sources
 */
final class Group extends Model
{
    protected $guarded = [];

    /** @return HasMany<Source, $this> */
    public function sources(): HasMany
    {
        return $this->hasMany(Source::class);
    }
}
