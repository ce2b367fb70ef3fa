<?php

declare(strict_types=1);

namespace App\Processes;

use Illuminate\Queue\Worker;

/** Whether the worker that this process is was asked to end. */
final class Stopping
{
    public static function isAsked(): bool
    {
        $worker = app()->bound('queue.worker') ? app('queue.worker') : null;

        return $worker instanceof Worker && $worker->shouldQuit;
    }
}
