<?php

declare(strict_types=1);

namespace App\Sources\Models;

use Illuminate\Database\Eloquent\Concerns\HasUuids;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\File;

/**
 * A file on its way in.
 *
 * @property string $id
 * @property string $name
 * @property string $folder
 * @property string $dropped  the same for all that were dropped together
 * @property int $bytes
 * @property int $received
 * @property ?int $source_id
 * @property Carbon $expires_at
 */
final class Upload extends Model
{
    use HasUuids;

    protected $guarded = [];

    /** @var array<string, string> */
    protected $casts = ['expires_at' => 'datetime', 'bytes' => 'integer', 'received' => 'integer'];

    /** @var array<string, string> */
    protected $attributes = ['dropped' => ''];

    /** Where the bytes received so far are. */
    public function path(): string
    {
        return config()->string('octavox.home').'/uploads/'.$this->id;
    }

    /** Nobody can go on with it then. */
    public function giveUp(): void
    {
        File::delete([$this->path(), $this->path().'.lock']);
        $this->delete();
    }
}
