<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Collection;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Support\Carbon;

/**
 * Chosen sources and what is asked of them.
 *
 * @property int $id
 * @property array<string, mixed> $sheet  what its sheet's address said
 * @property ?array<string, mixed> $spec
 * @property string $summary
 * @property Carbon $created_at
 * @property Collection<int, Result> $results
 */
final class Order extends Model
{
    protected $guarded = [];

    /** @var array<string, string> */
    protected $casts = ['sheet' => 'array', 'spec' => 'array'];

    /** @return HasMany<Result, $this> */
    public function results(): HasMany
    {
        return $this->hasMany(Result::class)->orderBy('id');
    }
}
