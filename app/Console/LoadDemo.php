<?php

declare(strict_types=1);

namespace App\Console;

use App\Files\Shelves;
use App\Sources\Actions\TakeIn;
use Illuminate\Console\Command;

final class LoadDemo extends Command
{
    protected $signature = 'octavox:load-demo {shelf}';

    protected $description = 'Take in everything on a shelf';

    public function handle(Shelves $shelves, TakeIn $takeIn): int
    {
        $shelf = $shelves->named(is_string($name = $this->argument('shelf')) ? $name : '');
        if ($shelf === null) {
            $this->error('There is no such shelf.');

            return self::FAILURE;
        }
        foreach ($shelf->entries('') as $entry) {
            if (! $entry->isFolder) {
                $takeIn->fromShelf($shelf, $entry->path);
            }
        }

        return self::SUCCESS;
    }
}
