<?php

declare(strict_types=1);

namespace App\Sources\Models;

use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;

/**
 * A file of a recorder or a shelf that was copied in, and what became of it.
 *
 * @property int $id
 * @property string $shelf
 * @property string $path  on the shelf
 * @property int $bytes
 * @property int $changed  when it was changed last, in seconds since 1970
 * @property string $seen  what the drive told of the file when its content was compared last
 * @property string $copy  where the copy lies, or lay before it became part of a recording
 * @property ?string $sha256  null until the copy was read again
 * @property ?int $source_id  number of the source that holds it
 * @property ?int $same_as  number of another source of the same content, which is why it was not taken in
 */
final class CopiedFile extends Model
{
    protected $guarded = [];

    /** @var array<string, string> */
    protected $casts = ['bytes' => 'integer', 'changed' => 'integer', 'source_id' => 'integer', 'same_as' => 'integer'];

    /**
     * Those of a file as its drive tells it, the newest first: a recorder whose clock is not set gives several recordings one name and
     * date.
     *
     * @return Builder<self>
     */
    public static function named(string $shelf, string $path, int $bytes, int $changed): Builder
    {
        return self::query()->where('shelf', $shelf)->where('path', $path)->where('bytes', $bytes)->where('changed', $changed)
            ->whereNotNull('sha256')->orderByDesc('id');
    }

    /** Whether a source holds it, its own or another of the same content. */
    public function isHeld(): bool
    {
        return $this->source_id !== null || $this->same_as !== null;
    }
}
