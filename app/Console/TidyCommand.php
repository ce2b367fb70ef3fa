<?php

declare(strict_types=1);

namespace App\Console;

use App\Upkeep\Tidy as TidyAction;
use Illuminate\Console\Command;

final class TidyCommand extends Command
{
    protected $signature = 'octavox:tidy';

    protected $description = 'Throw away uploads that nobody went on with, and what belongs to rows that are gone';

    public function handle(TidyAction $tidy): int
    {
        $tidy->tidy();

        return self::SUCCESS;
    }
}
