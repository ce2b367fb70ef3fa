<?php

declare(strict_types=1);

namespace App\Watching\Models;

use Illuminate\Database\Eloquent\Collection;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Support\Carbon;

/**
 * An order that takes whatever lands in a folder.
 *
 * @property int $id
 * @property string $title
 * @property string $shelf  name of the shelf
 * @property string $folder  on it, with slashes; empty for the shelf itself
 * @property bool $nested  whether the folders within count as well
 * @property string $goes  `to:` a destination, `by:` a recipe
 * @property string $place
 * @property string $name  pattern for the names of results; empty for that of the recipe
 * @property bool $paused
 * @property string $trouble
 * @property Carbon $created_at
 * @property Collection<int, Arrival> $arrivals
 */
final class WatchedFolder extends Model
{
    protected $guarded = [];

    /** @var array<string, mixed> */
    protected $attributes = ['folder' => '', 'nested' => true, 'place' => '', 'name' => '', 'paused' => false, 'trouble' => ''];

    /** @var array<string, string> */
    protected $casts = ['nested' => 'boolean', 'paused' => 'boolean'];

    /** @return HasMany<Arrival, $this> */
    public function arrivals(): HasMany
    {
        return $this->hasMany(Arrival::class);
    }
}
