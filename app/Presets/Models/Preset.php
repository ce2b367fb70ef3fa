<?php

declare(strict_types=1);

namespace App\Presets\Models;

use App\Presets\Values\PresetKind;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Support\Carbon;

/**
 * A recipe or a destination that somebody made, or how one that ships with Octavox is used.
 *
 * @property int $id
 * @property PresetKind $kind
 * @property string $name
 * @property ?array<string, mixed> $document  null for one that ships
 * @property bool $starred
 * @property ?Carbon $used_at
 */
final class Preset extends Model
{
    protected $guarded = [];

    /** @var array<string, string> */
    protected $casts = ['kind' => PresetKind::class, 'document' => 'array', 'starred' => 'boolean', 'used_at' => 'datetime'];
}
