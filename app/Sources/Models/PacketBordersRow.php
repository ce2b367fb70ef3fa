<?php

declare(strict_types=1);

namespace App\Sources\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Support\Carbon;
use Octavox\Core\Media\PacketBorders;

/**
 * What a child found of the packets around two marks of a source; what is neither found nor failed is being looked for.
 *
 * @property int $source_id
 * @property string $query
 * @property ?array<array-key, mixed> $borders
 * @property ?string $error
 * @property Carbon $updated_at
 */
final class PacketBordersRow extends Model
{
    protected $table = 'packet_borders';

    protected $guarded = [];

    /** @var array<string, string> */
    protected $casts = ['borders' => 'array'];

    /** What was found; null as long as nothing is, or where it is not understood any more. */
    public function found(): ?PacketBorders
    {
        try {
            return $this->borders === null ? null : PacketBorders::fromArray($this->borders);
        } catch (\UnexpectedValueException) {
            return null;
        }
    }

    public function isWaiting(): bool
    {
        return $this->borders === null && $this->error === null;
    }
}
