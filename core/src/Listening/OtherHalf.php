<?php

declare(strict_types=1);

namespace Octavox\Core\Listening;

use Octavox\Core\Make\CoreScript;
use Octavox\Core\Make\Crew;

/** A second process that listens to the later half of a long track at the same time, where there is a second processor. */
final class OtherHalf
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
        $begun = Crew::ofThisMachine()->hands() < 2 ? null : CoreScript::begin('listening', $wish);

        return $begun === null ? null : new self(...$begun);
    }

    /** Waits for what it has heard; null where it died. */
    public function heard(): ?HeardPart
    {
        $said = (string) stream_get_contents($this->output);
        fclose($this->output);

        return proc_close($this->process) === 0 ? HeardPart::unpacked($said) : null;
    }
}
