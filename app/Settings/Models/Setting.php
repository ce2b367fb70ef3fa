<?php

declare(strict_types=1);

namespace App\Settings\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * What somebody has set; what nobody has set has no row.
 *
 * @property string $name
 * @property mixed $value
 */
final class Setting extends Model
{
    public $incrementing = false;

    protected $primaryKey = 'name';

    protected $keyType = 'string';

    protected $guarded = [];

    /** @var array<string, string> */
    protected $casts = ['value' => 'json'];
}
