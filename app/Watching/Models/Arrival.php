<?php

declare(strict_types=1);

namespace App\Watching\Models;

use App\Orders\Models\Order;
use App\Sources\Models\Source;
use App\Watching\Values\ArrivalState;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Carbon;

/**
 * A file that landed in the watched folder; it is never taken twice.
 *
 * @property int $id
 * @property int $watched_folder_id
 * @property string $path  from the folder on
 * @property string $identity  device and number of the file on it
 * @property int $bytes
 * @property int $changed  seconds since the start of 1970
 * @property ArrivalState $state
 * @property string $says
 * @property ?Carbon $still_since  since when it has not grown
 * @property ?int $source_id
 * @property ?int $order_id
 * @property Carbon $updated_at
 * @property ?Source $source
 * @property ?Order $order
 */
final class Arrival extends Model
{
    protected $guarded = [];

    /** @var array<string, mixed> */
    protected $attributes = ['says' => ''];

    /** @var array<string, string> */
    protected $casts = ['state' => ArrivalState::class, 'bytes' => 'integer', 'changed' => 'integer', 'still_since' => 'datetime'];

    /** @return BelongsTo<Source, $this> */
    public function source(): BelongsTo
    {
        return $this->belongsTo(Source::class);
    }

    /** @return BelongsTo<Order, $this> */
    public function order(): BelongsTo
    {
        return $this->belongsTo(Order::class);
    }
}
