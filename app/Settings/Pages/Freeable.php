<?php

declare(strict_types=1);

namespace App\Settings\Pages;

use App\Sources\Models\Upload;
use Illuminate\Database\Eloquent\Collection;
use Illuminate\Support\Facades\File;

/** What can be given up so that the drive of the home has room again. */
final class Freeable
{
    private const MOST = 200;

    /** @var ?Collection<int, Upload> */
    private ?Collection $uploads = null;

    /** @return Collection<int, Upload> that were begun and are not whole */
    public function uploads(): Collection
    {
        return $this->uploads ??= Upload::query()->whereNull('source_id')->latest()->limit(self::MOST)->get();
    }

    public function uploadBytes(): int
    {
        return $this->uploads()->reduce(fn (int $sum, Upload $one): int => $sum + $one->received, 0);
    }

    /** @return array{int, int} how many drawings of sound are kept, and their bytes */
    public function drawings(): array
    {
        $bytes = array_map(fn (string $path): int => (int) @filesize($path), $this->drawn());

        return [count($bytes), array_sum($bytes)];
    }

    /** They are drawn again when somebody looks at them. */
    public function dropDrawings(): int
    {
        $drawn = $this->drawn();
        File::delete($drawn);

        return count($drawn);
    }

    /** Nobody can go on with these then. */
    public function dropUploads(): int
    {
        $dropped = 0;
        foreach ($this->uploads() as $upload) {
            $upload->giveUp();
            $dropped++;
        }
        $this->uploads = null;

        return $dropped;
    }

    /** @return list<string> */
    private function drawn(): array
    {
        return array_values(File::glob(config()->string('octavox.home').'/waveforms/*.waveform'));
    }
}
