<?php

declare(strict_types=1);

namespace Octavox\Core\Analysis;

use Octavox\Core\Make\WorkerPool;
use Octavox\Core\Parallel\CoreScript;

/** A second process that listens to the later half of a long track at the same time, where there is a second processor. */
final class ParallelAnalysis
{
    /**
     * @param  resource  $process
     * @param  resource  $output
     */
    private function __construct(private $process, private $output)
    {
    }

    /**
     * @param  array<string, mixed>  $wish  what the process reads
     * @return ?self null where there is only one processor or no process can be started
     */
    public static function start(array $wish): ?self
    {
        $begun = WorkerPool::ofThisMachine()->hands() < 2 ? null : CoreScript::begin('listening', $wish);

        return $begun === null ? null : new self(...$begun);
    }

    /** Waits for what it has heard; null where it died. */
    public function heard(): ?PartialAnalysis
    {
        $said = (string) stream_get_contents($this->output);
        fclose($this->output);

        return proc_close($this->process) === 0 ? PartialAnalysis::unpacked($said) : null;
    }
}
