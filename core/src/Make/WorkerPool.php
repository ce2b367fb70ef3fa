<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Failure;
use Octavox\Core\Parallel\Processors;
use Octavox\Core\Plan\Plan;

/** Several children at once, one plan each, until all plans are carried out; one bad file never stops the rest. */
final class WorkerPool
{
    public function __construct(private readonly int $hands) {}

    /** As many as this process may use processors. */
    public static function ofThisMachine(): self
    {
        return new self(Processors::count());
    }

    /**
     * @param  list<Plan>  $plans
     * @param  list<string>  $originals  paths of files that no result may replace
     * @param  callable(int, Result|Failure): void  $ended  told of each plan, by its place in the list, what became of it
     * @param  ?callable(array<int, int>): void  $tell  told now and then how much is done of each that is being made
     */
    public function carryOut(array $plans, array $originals, callable $ended, ?callable $tell = null): void
    {
        $waiting = array_keys($plans);
        /** @var array<int, MakerProcess> $working */
        $working = [];
        while ($waiting !== [] || $working !== []) {
            while ($waiting !== [] && count($working) < $this->hands) {
                $index = array_shift($waiting);
                $working[$index] = MakerProcess::start($plans[$index], null, $originals);
            }
            $read = array_map(fn (MakerProcess $child) => $child->output(), $working);
            $none = null;
            @stream_select($read, $none, $none, 1);
            if ($tell !== null) {
                $tell(array_map(fn (MakerProcess $child): int => $child->done(), $working));
            }
            foreach ($working as $index => $child) {
                if ($child->listen()) {
                    continue;
                }
                unset($working[$index]);
                try {
                    $ended($index, $child->result());
                } catch (Failure $failure) {
                    $ended($index, $failure);
                }
            }
        }
    }
}
