<?php

declare(strict_types=1);

namespace App\Console;

use App\Actions\RecoverDeliveries;
use Illuminate\Console\Command;

final class Recover extends Command
{
    protected $signature = 'octavox:recover {--start : nobody works yet}';

    protected $description = 'Take up deliveries whose worker is gone';

    public function handle(RecoverDeliveries $deliveries): int
    {
        if ($this->option('start')) {
            $deliveries->recoverAll();
        } else {
            $deliveries->recover();
        }

        return self::SUCCESS;
    }
}
