<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Failure;
use Octavox\Core\Plan\Plan;

/** Several children at once, one plan each, until all plans are carried out; one bad file never stops the rest. */
final class WorkerPool
{
    public function __construct(private readonly int $hands)
    {
    }

    /** As many as this process may use processors. */
    public static function ofThisMachine(): self
    {
        $affinity = @file_get_contents('/proc/self/status');
        $count = 2;
        if ($affinity !== false && preg_match('/Cpus_allowed:\s*([0-9a-f,]+)/', $affinity, $match) === 1) {
            $count = substr_count(implode('', array_map(fn (string $digit): string => decbin((int) hexdec($digit)), str_split(str_replace(',', '', $match[1])))), '1');
        }

        return new self(max(1, $count));
    }

    public function hands(): int
    {
        return $this->hands;
    }

    /**
     * @param  list<Plan>  $plans
     * @param  list<string>  $originals  paths of files that no result may replace
     * @param  callable(int, array<array-key, mixed>|Failure): void  $ended  told of each plan, by its place in the list, what became of it
     */
    public function carryOut(array $plans, array $originals, callable $ended): void
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
            foreach ($working as $index => $child) {
                if ($child->listen()) {
                    continue;
                }
                unset($working[$index]);
                try {
                    $ended($index, $child->delivery());
                } catch (Failure $failure) {
                    $ended($index, $failure);
                }
            }
        }
    }
}
