<?php

declare(strict_types=1);

namespace App\Orders\Models;

use App\Sources\Models\Source;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Octavox\Core\Order\OutputSpec;

/**
 * One source of an order, and what is asked of it alone.
 *
 * @property int $id
 * @property int $order_id
 * @property int $source_id
 * @property int $position
 * @property ?array<string, mixed> $spec  a spec that lies over that of the order
 * @property bool $marked
 * @property Order $order
 * @property Source $source
 */
final class OrderLine extends Model
{
    public $timestamps = false;

    protected $guarded = [];

    /** @var array<string, string> */
    protected $casts = ['spec' => 'array', 'marked' => 'boolean', 'position' => 'integer'];

    /** @return BelongsTo<Order, $this> */
    public function order(): BelongsTo
    {
        return $this->belongsTo(Order::class);
    }

    /** @return BelongsTo<Source, $this> */
    public function source(): BelongsTo
    {
        return $this->belongsTo(Source::class);
    }

    public function changes(): OutputSpec
    {
        return Order::specOf($this->spec);
    }
}
