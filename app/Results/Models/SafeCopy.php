<?php

declare(strict_types=1);

namespace App\Results\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * A copy of a source that was made, and read again, before an order touched it.
 *
 * @property int $order_id
 * @property int $source_id
 * @property string $path
 * @property string $sha256
 */
final class SafeCopy extends Model
{
    protected $guarded = [];

    /** Where copies lie if nobody says otherwise; each order has a folder of its own there. */
    public static function folder(): string
    {
        return config()->string('octavox.home').'/copies';
    }
}
