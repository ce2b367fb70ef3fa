<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Failure;
use Octavox\Core\Media\Phase;
use Octavox\Core\Order\IfExists;
use Octavox\Core\Parallel\Abandoned;
use Octavox\Core\Parallel\ChildMessage;
use Octavox\Core\Parallel\CoreScript;
use Octavox\Core\Plan\Plan;

/**
 * One plan being carried out in a process of its own, so that whatever a damaged file does to a native library
 * ends that process and nothing else. It speaks {@see ChildMessage}s; its note is a {@see Placing}, its answer a {@see Result}.
 */
final class MakerProcess
{
    /** A child that says nothing for this long has lost its drive or its way. */
    private const SECONDS_SILENT = 120;

    /** Signals that somebody sends to stop a process; a decoder that fails dies of others. */
    private const STOPPED_BY = [SIGHUP, SIGINT, SIGKILL, SIGTERM];

    /** Seconds of sound that are made in a second or two. */
    private const SECONDS_BRIEF = 120;

    private string $line = '';

    private float $lastSign;

    private ?Result $result = null;

    private ?Placing $placing = null;

    private ?Failure $failure = null;

    private bool $ended = false;

    private int $done = 0;

    private Phase $phase = Phase::Making;

    /**
     * @param  resource  $process
     * @param  resource  $output
     */
    private function __construct(public readonly Plan $plan, private readonly string $token, private $process, private $output,
        private readonly int $secondsSilent)
    {
        $this->lastSign = microtime(true);
    }

    /**
     * @param  list<string>  $originals  paths of files that the result must not replace, besides its own source
     * @param  ?string  $journal  path of the {@see Journal}
     * @param  ?string  $log  path of a file for what the process says of its own troubles
     * @param  list<string>  $bins  {@see Maker::make()}
     * @param  int  $secondsSilent  after which a child that says nothing is ended
     *
     * @throws Failure
     */
    public static function start(Plan $plan, ?string $token = null, array $originals = [], ?string $journal = null,
        ?string $log = null, array $bins = [], int $secondsSilent = self::SECONDS_SILENT): self
    {
        $token ??= bin2hex(random_bytes(8));
        $asked = ['plan' => $plan->toArray(), 'token' => $token, 'originals' => $plan->target->ifExists === IfExists::Replace ? $originals
            : [], 'journal' => $journal, 'bins' => $plan->target->ifExists === IfExists::Replace ? $bins : []];
        [$process, $output] = CoreScript::begin('maker', $asked, $log, $plan->seconds() < self::SECONDS_BRIEF, $token)
            ?? throw ChildDied::ended($plan->source->path, 'no process could be started');
        stream_set_blocking($output, false);

        return new self($plan, $token, $process, $output, $secondsSilent);
    }

    /**
     * For waiting on several children at once.
     *
     * @return resource
     */
    public function output(): mixed
    {
        return $this->output;
    }

    /** Takes in what the child has said; true as long as it is at work. */
    public function listen(): bool
    {
        if ($this->ended) {
            return false;
        }
        $this->take();
        if (feof($this->output)) {
            $this->close();
        } elseif (microtime(true) - $this->lastSign > $this->secondsSilent) {
            $this->failure = ChildDied::silent($this->plan->source->path, $this->secondsSilent);
            $this->kill();
        }

        return ! $this->ended;
    }

    private function take(): void
    {
        $received = (string) stream_get_contents($this->output);
        if ($received !== '') {
            $this->lastSign = microtime(true);
            $lines = explode("\n", $this->line.$received);
            $this->line = (string) array_pop($lines);
            array_walk($lines, $this->understand(...));
        }
    }

    /** Waits until the child says something or the time is over. */
    public function wait(float $seconds): void
    {
        $read = [$this->output];
        $none = null;
        if (! $this->ended) {
            @stream_select($read, $none, $none, (int) $seconds, (int) (fmod($seconds, 1.0) * 1e6));
        }
    }

    public function phase(): Phase
    {
        return $this->phase;
    }

    /** Samples of the result that are made, or verified. */
    public function done(): int
    {
        return $this->done;
    }

    /**
     * Once the child has ended. A file that got its name in the last moment counts, whatever its process was ended for.
     *
     * @throws Failure why there is none
     */
    public function result(): Result
    {
        return $this->result ?? throw $this->failure ?? ChildDied::ended($this->plan->source->path, 'no result');
    }

    /** Whether there is one. */
    public function hasResult(): bool
    {
        return $this->result !== null;
    }

    /** Ends the work; nothing half made is left behind. */
    public function cancel(): void
    {
        $this->end(Abandoned::now());
    }

    /** Ends the work because the one who waits for it is stopped; it can be begun again. */
    public function interrupt(): void
    {
        $this->end(Interrupted::now($this->plan->source->path));
    }

    private function end(Failure $why): void
    {
        if (! $this->ended) {
            $this->failure = $why;
            $this->kill();
        }
    }

    /** Nobody waits any more. */
    public function __destruct()
    {
        $this->cancel();
    }

    private function kill(): void
    {
        proc_terminate($this->process, SIGKILL);
        $this->close();
    }

    private function close(): void
    {
        if ($this->ended) {
            return;
        }
        $this->ended = true;
        do {
            $status = proc_get_status($this->process);
            $running = $status['running'];
            if ($running) {
                usleep(2000);
            }
        } while ($running);
        $this->take();
        fclose($this->output);
        proc_close($this->process);
        if ($this->result === null) {
            $this->result = $this->placing?->result($this->plan);
            (new Workplace($this->plan->target->folder))->forget($this->token);
            $this->failure ??= $status['signaled'] && in_array($status['termsig'], self::STOPPED_BY, true)
                ? Interrupted::now($this->plan->source->path)
                : ChildDied::ended($this->plan->source->path, $status['signaled'] ? 'signal '.$status['termsig']
                    : 'status '.$status['exitcode']);
        }
    }

    private function understand(string $line): void
    {
        $message = ChildMessage::parse($line);
        if ($message?->answer !== null) {
            $this->result = Result::fromArray($this->plan, $message->answer);
        } elseif ($message?->note !== null) {
            $this->placing = Placing::parse($message->note);
        } elseif ($message?->failure !== null) {
            $this->failure = $message->failure;
        } elseif ($message?->progress !== null) {
            [$this->phase, $this->done] = $message->progress;
        }
    }
}
