<?php

declare(strict_types=1);

namespace App\Processes;

use Octavox\Core\Failure;
use Octavox\Core\Make\ChildDied;
use Octavox\Core\Make\Interrupted;
use Octavox\Core\Parallel\Abandoned;
use Octavox\Core\Parallel\ChildMessage;
use Symfony\Component\Process\Exception\ProcessSignaledException;
use Symfony\Component\Process\Exception\ProcessTimedOutException;
use Symfony\Component\Process\Process;

/** Asks a script of the heart one thing and waits for its answer; what it says of its own troubles is kept where it fails. */
final readonly class AskedChild
{
    /** Lines that tell how far it is are thrown away beyond so many bytes. */
    private const MOST_BYTES = 1 << 22;

    /** Signals that somebody sends to stop a process; a decoder that dies of a file dies of others. */
    private const STOPPED_BY = [SIGHUP, SIGINT, SIGKILL, SIGTERM];

    private const SECONDS_BETWEEN_QUESTIONS = 2.0;

    /** Microseconds between two looks whether it is done: short ones for what is done soon. */
    private const SHORTEST_PAUSE = 500;

    private const LONGEST_PAUSE = 20_000;

    /**
     * @param  ?float  $seconds  after which it is ended; null for as long as it gives signs
     * @param  ?float  $silence  seconds without a word after which it is ended
     */
    public function __construct(private string $script, private ?float $seconds, private ?float $silence = null,
        private bool $isBrief = true) {}

    /**
     * @param  array<string, mixed>  $asked
     * @param  string  $log  name of the log, below the home's logs
     * @param  ?callable(): bool  $goOn  asked now and then whether anybody still waits for the answer
     * @return array<array-key, mixed>
     *
     * @throws Failure what the child said, {@see Interrupted} where somebody stopped it, {@see Abandoned} where nobody waits any more
     */
    public function answer(array $asked, string $path, string $log, ?callable $goOn = null): array
    {
        $process = CoreProcess::prepare($this->script, $asked, $this->isBrief)->setTimeout($this->seconds)->setIdleTimeout($this->silence);
        $said = $troubles = '';
        try {
            $process->start(function (string $type, string $part) use (&$said, &$troubles): void {
                if ($type === 'out') {
                    $said = substr($said.$part, -self::MOST_BYTES);
                } else {
                    $troubles = substr($troubles.$part, -self::MOST_BYTES);
                }
            });
            $this->await($process, $path, $goOn);

            return $this->understood($said, $path);
        } catch (ProcessSignaledException $ended) {
            $failure = in_array($ended->getSignal(), self::STOPPED_BY, true) ? Interrupted::now($path)
                : ChildDied::ended($path, 'signal '.$ended->getSignal());
        } catch (ProcessTimedOutException) {
            $failure = ChildDied::silent($path, (int) ($this->seconds ?? $this->silence));
        } catch (Failure $told) {
            $failure = $told;
        }
        BoundedLog::add($log, sprintf("%s %s\n%s: %s\n%s", now()->toIso8601String(), $path, $failure->code(),
            $failure->getMessage(), $troubles));
        throw $failure;
    }

    /**
     * A worker that is asked to end waits for no child.
     *
     * @param  ?callable(): bool  $goOn
     *
     * @throws Interrupted
     * @throws Abandoned
     */
    private function await(Process $process, string $path, ?callable $goOn): void
    {
        $asked = microtime(true);
        for ($pause = self::SHORTEST_PAUSE; $process->isRunning(); $pause = min(self::LONGEST_PAUSE, 2 * $pause)) {
            $process->checkTimeout();
            if (Stopping::isAsked()) {
                $process->stop(0.0);
                throw Interrupted::now($path);
            }
            if ($goOn !== null && microtime(true) - $asked > self::SECONDS_BETWEEN_QUESTIONS) {
                $asked = microtime(true);
                if (! $goOn()) {
                    $process->stop(0.0);
                    throw Abandoned::now();
                }
            }
            usleep($pause);
        }
        if ($process->hasBeenSignaled()) {
            throw new ProcessSignaledException($process);
        }
    }

    /**
     * @return array<array-key, mixed>
     *
     * @throws Failure
     */
    private function understood(string $said, string $path): array
    {
        $lines = explode("\n", trim($said));
        $last = ChildMessage::parse($lines[count($lines) - 1]);

        return $last->answer ?? throw $last->failure ?? ChildDied::ended($path, 'no answer');
    }
}
