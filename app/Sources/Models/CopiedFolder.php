<?php

declare(strict_types=1);

namespace App\Sources\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * A folder of a shelf that is copied in, or was.
 *
 * @property int $id
 * @property string $shelf
 * @property string $folder
 * @property string $state  `copying`, `done` or `failed`
 * @property int $files
 * @property int $done
 * @property string $says  what came of it
 */
final class CopiedFolder extends Model
{
    public const COPYING = 'copying';

    public const DONE = 'done';

    public const FAILED = 'failed';

    protected $guarded = [];

    /** @var array<string, mixed> */
    protected $attributes = ['state' => self::COPYING, 'files' => 0, 'done' => 0, 'says' => ''];

    /** @var array<string, string> */
    protected $casts = ['files' => 'integer', 'done' => 'integer'];

    /** What the shelves are called that stand for recorders: no shelf can be called so. */
    public const RECORDER = '/recorder/';

    /** Name of the recorder that it is of; empty where it is a folder of a shelf. */
    public function recorder(): string
    {
        return str_starts_with($this->shelf, self::RECORDER) ? substr($this->shelf, strlen(self::RECORDER)) : '';
    }

    public function heading(): string
    {
        return trim(($this->recorder() === '' ? $this->shelf : $this->recorder()).' / '.$this->folder, ' /');
    }
}
