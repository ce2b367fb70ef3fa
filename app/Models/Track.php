<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * One stream inside a source, as lists show it; the exact facts are in the source's reading.
 *
 * @property int $id
 * @property int $source_id
 * @property int $number
 * @property string $kind
 * @property string $codec
 * @property string $form
 * @property ?string $language
 * @property ?int $rate
 * @property ?int $channels
 * @property ?string $layout
 * @property ?float $kbps
 * @property ?int $samples
 * @property float $starts
 * @property ?int $width
 * @property ?int $height
 * @property ?float $per_second
 */
final class Track extends Model
{
    public $timestamps = false;

    protected $guarded = [];
}
