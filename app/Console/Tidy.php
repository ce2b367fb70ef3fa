<?php

declare(strict_types=1);

namespace App\Console;

use App\Models\Delivery;
use App\Models\Source;
use App\Models\Upload;
use Illuminate\Console\Command;
use Illuminate\Support\Facades\File;

final class Tidy extends Command
{
    protected $signature = 'octavox:tidy';

    protected $description = 'Throw away uploads that nobody went on with, and ribbons of what is gone';

    public function handle(): int
    {
        /** @var Upload $upload */
        foreach (Upload::query()->whereNull('source_id')->where('expires_at', '<', now())->get() as $upload) {
            File::delete($upload->path());
            $upload->delete();
        }

        $this->sweepRibbons();

        return self::SUCCESS;
    }

    /** A source that was taken off the list while it was being listened to leaves its ribbons behind. */
    private function sweepRibbons(): void
    {
        $folder = config('octavox.home').'/ribbons';
        foreach (File::isDirectory($folder) ? File::files($folder) : [] as $file) {
            $known = match (true) {
                preg_match('/^(\d+)-\d+\.ribbon$/', $file->getFilename(), $parts) === 1 => Source::query()->whereKey((int) $parts[1])->exists(),
                preg_match('/^result-(\d+)\.ribbon/', $file->getFilename(), $parts) === 1 => Delivery::query()->whereKey((int) $parts[1])->exists(),
                default => true,
            };
            if (! $known && $file->getMTime() < now()->subMinutes(10)->getTimestamp()) {
                File::delete($file->getPathname());
            }
        }
    }
}
