<?php

declare(strict_types=1);

namespace App\Jobs;

use App\Actions\RecordReading;
use App\Models\Source;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use Octavox\Core\Bytes\Fence;
use Octavox\Core\Parallel\CoreScript;
use Symfony\Component\Process\Exception\ProcessSignaledException;
use Symfony\Component\Process\Exception\ProcessTimedOutException;
use Symfony\Component\Process\Process;

/** Reads one source in a process of its own, so that a hostile file harms nothing else. */
final class ReadSource implements ShouldQueue
{
    use Queueable;

    private const SECONDS = 60;

    public int $tries = 3;

    public function __construct(private readonly int $source)
    {
        $this->onQueue('reading');
    }

    public function handle(RecordReading $record): void
    {
        $source = Source::query()->find($this->source);
        if ($source === null) {
            return;
        }
        $process = new Process([...CoreScript::php(brief: true), base_path('cli/octavox.php'), 'read', '--json', $source->path], env: Fence::environment(), timeout: self::SECONDS);
        try {
            $process->run();
        } catch (ProcessSignaledException $ended) {
            if (in_array($ended->getSignal(), [SIGHUP, SIGINT, SIGKILL, SIGTERM], true) && $this->attempts() < $this->tries) {
                throw $ended;
            }
            $record->unreadable($source, 'child-died', 'Reading this file ended without a word, most likely because it is damaged; copy it again from where it came from.');

            return;
        } catch (ProcessTimedOutException) {
            $record->unreadable($source, 'too-slow', sprintf('Reading this file took more than %d seconds and was ended, most likely because it is damaged; copy it again from where it came from.', self::SECONDS));

            return;
        }
        $said = json_decode($process->getOutput(), true);
        $reading = is_array($said) ? ($said['sources'][0] ?? null) : null;
        if ($process->isSuccessful() && is_array($reading)) {
            $record->readable($source, $reading);
        } else {
            $error = is_array($said) && is_array($said['error'] ?? null) ? $said['error'] : [];
            $record->unreadable($source, (string) ($error['code'] ?? 'child-died'), (string) ($error['message'] ?? 'Reading this file ended without a word, most likely because it is damaged; copy it again from where it came from.'));
        }
    }

    /** Nothing stays on the list as being read for ever. */
    public function failed(?\Throwable $why): void
    {
        $source = Source::query()->find($this->source);
        if ($source !== null) {
            app(RecordReading::class)->unreadable($source, 'interrupted', sprintf('Reading this file was interrupted %d times and is not begun again by itself; nothing was changed. Take it off the list and bring it in again.', $this->tries));
        }
    }
}
