<?php

declare(strict_types=1);

namespace App\Console;

use App\Files\Shelves;
use App\Upkeep\Health;
use App\Upkeep\Recover;
use App\Upkeep\Tidy;
use App\Watching\Actions\TendWatchedFolders;
use App\Watching\Queries\FolderContents;
use Illuminate\Console\Command;

/** Looks every few seconds whether anything was left by a process that died or has arrived in a watched folder, and tidies now and then. */
final class Keep extends Command
{
    private const SECONDS_BETWEEN = 3.0;

    private const SECONDS_BETWEEN_TIDYING = 600;

    protected $signature = 'octavox:keep {--start : nobody works yet; look once and end}';

    protected $description = 'Take up what was interrupted, and tidy';

    private bool $stopping = false;

    public function handle(Recover $recover, Tidy $tidy, FolderContents $folders): int
    {
        if ($this->option('start')) {
            $recover->atStart();
            $tidy->tidy();

            return self::SUCCESS;
        }
        pcntl_async_signals(true);
        foreach ([SIGTERM, SIGINT] as $signal) {
            pcntl_signal($signal, function (): void {
                $this->stopping = true;
            });
        }
        $tidied = time();
        while (! $this->stopping) {
            try {
                touch(config()->string('octavox.home').'/'.Health::KEEPER);
                $recover->run();
                // Settings, shelves and recipes may be others than at the last look.
                app()->forgetScopedInstances();
                $this->laravel->make(Shelves::class)->fence();
                $this->laravel->make(TendWatchedFolders::class)->run();
                if (time() - $tidied > self::SECONDS_BETWEEN_TIDYING) {
                    $tidied = time();
                    $tidy->tidy();
                }
            } catch (\Throwable $trouble) {
                // The database may be busy or the drive full: the next look comes soon.
                report($trouble);
            }
            $folders->wait(self::SECONDS_BETWEEN);
        }

        return self::SUCCESS;
    }
}
