<?php

declare(strict_types=1);

namespace App\Console;

use App\Models\Upload;
use Illuminate\Console\Command;
use Illuminate\Support\Facades\File;

final class Tidy extends Command
{
    protected $signature = 'octavox:tidy';

    protected $description = 'Throw away uploads that nobody went on with';

    public function handle(): int
    {
        /** @var Upload $upload */
        foreach (Upload::query()->whereNull('source_id')->where('expires_at', '<', now())->get() as $upload) {
            File::delete($upload->path());
            $upload->delete();
        }

        return self::SUCCESS;
    }
}
