<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Failure;
use Octavox\Core\Parallel\Processors;
use Octavox\Core\Plan\Plan;

/** Several children at once, one plan each, until all plans are carried out; one bad file never stops the rest. */
final class WorkerPool
{
    /** @param  list<string>  $bins  {@see Maker::make()} */
    public function __construct(private readonly int $hands, private readonly array $bins = []) {}

    /**
     * As many as this process may use processors.
     *
     * @param  list<string>  $bins
     */
    public static function ofThisMachine(array $bins = []): self
    {
        return new self(Processors::count(), $bins);
    }

    /**
     * @param  list<Plan>  $plans
     * @param  list<string>  $originals  paths of files that no result may replace
     * @param  callable(int, Result|Failure): void  $ended  told of each plan, by its place in the list, what became of it
     * @param  ?callable(array<int, int>): void  $tell  told now and then how much is done of each that is being made
     * @param  ?callable(): bool  $goOn  says whether to go on; else what is being made is given up, and nothing half made is left; what
     *                                   was finished in that moment is told of
     *
     * @throws Failure
     */
    public function carryOut(array $plans, array $originals, callable $ended, ?callable $tell = null,
        ?callable $goOn = null): void
    {
        $waiting = array_keys($plans);
        /** @var array<int, MakerProcess> $working */
        $working = [];
        while ($waiting !== [] || $working !== []) {
            while ($waiting !== [] && count($working) < $this->hands) {
                $index = array_shift($waiting);
                $working[$index] = MakerProcess::start($plans[$index], null, $originals, bins: $this->bins);
            }
            $read = array_map(fn (MakerProcess $child) => $child->output(), $working);
            $none = null;
            @stream_select($read, $none, $none, 1);
            if ($goOn !== null && ! $goOn()) {
                array_map(fn (MakerProcess $child) => $child->cancel(), $working);
                foreach (array_filter($working, fn (MakerProcess $child): bool => $child->hasResult()) as $index => $child) {
                    $ended($index, $child->result());
                }

                return;
            }
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
