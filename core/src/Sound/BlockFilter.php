<?php

declare(strict_types=1);

namespace Octavox\Core\Sound;

use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Sound\Native\VectorMath;

/**
 * A chain of recursive filters over one channel, computed as products of matrices instead of sample by sample.
 *
 * A row of N samples and the filter's state before it give, by fixed matrices, the row's output and what the row adds to the state
 * after it. The states of GROUP rows follow from those sums by one more product; only from group to group is there a loop.
 */
final class BlockFilter
{
    private const ROW = 64;

    private const GROUP = 32;

    private readonly int $order;

    private readonly FloatBuffer $response;

    private readonly FloatBuffer $observed;

    private readonly FloatBuffer $gathered;

    private readonly FloatBuffer $spread;

    /** What a state before a group leaves in each of its rows. */
    private FloatBuffer $begun;

    /** @var list<list<float>> what a group of rows without input leaves of the state */
    private readonly array $decay;

    /** @var list<float> */
    private array $state;

    private FloatBuffer $sums;

    private FloatBuffer $states;

    public function __construct(Biquad ...$chain)
    {
        $chain = array_values($chain);
        $this->order = 2 * count($chain);
        $this->state = array_fill(0, $this->order, 0.0);
        $responses = [];
        $gathered = [];
        // The response to one sample at the begin of a row, and the states that it leaves after each.
        [$impulse, $after] = self::run($chain, $this->state, [1.0, ...array_fill(0, self::ROW - 1, 0.0)]);
        for ($row = 0; $row < self::ROW; $row++) {
            for ($column = 0; $column < self::ROW; $column++) {
                $responses[] = $column <= $row ? $impulse[$row - $column] : 0.0;
            }
        }
        for ($index = 0; $index < $this->order; $index++) {
            for ($column = 0; $column < self::ROW; $column++) {
                $gathered[] = $after[self::ROW - 1 - $column][$index];
            }
        }
        $observed = array_fill(0, self::ROW * $this->order, 0.0);
        $step = [];
        for ($index = 0; $index < $this->order; $index++) {
            $unit = array_fill(0, $this->order, 0.0);
            $unit[$index] = 1.0;
            [$outputs, $states] = self::run($chain, array_values($unit), array_fill(0, self::ROW, 0.0));
            foreach ($outputs as $row => $value) {
                $observed[$row * $this->order + $index] = $value;
            }
            $step[$index] = $states[self::ROW - 1];
        }
        $this->response = FloatBuffer::fromBytes(pack('f*', ...$responses));
        $this->gathered = FloatBuffer::fromBytes(pack('f*', ...$gathered));
        $this->observed = FloatBuffer::fromBytes(pack('f*', ...$observed));
        [$this->spread, $this->decay] = $this->groups($step);
        $this->sums = $this->states = new FloatBuffer(1);
    }

    /** Frames a call must be a multiple of. */
    public static function step(): int
    {
        return self::ROW * self::GROUP;
    }

    /**
     * Filters samples in their order; the state goes on from call to call.
     *
     * @param  int  $count  a multiple of {@see self::step()}
     */
    public function filter(FloatBuffer $from, int $fromOffset, FloatBuffer $to, int $toOffset, int $count): void
    {
        $rows = intdiv($count, self::ROW);
        $groups = intdiv($rows, self::GROUP);
        $order = $this->order;
        if ($this->sums->capacity < $rows * $order) {
            $this->sums = new FloatBuffer($rows * $order);
            $this->states = new FloatBuffer($rows * $order);
        }
        $vector = VectorMath::get();
        $vector->matrix($from, $fromOffset, self::ROW, $this->gathered, self::ROW, $this->sums, 0, $rows, $order, self::ROW);
        // States before each row, as if each group began at rest; the last columns hold the state after the group.
        $width = self::GROUP * $order;
        $room = new FloatBuffer($groups * ($width + $order));
        $vector->matrix($this->sums, 0, $width, $this->spread, $width, $room, 0, $groups, $width + $order, $width);
        $this->carry($room, $groups, $width);
        $vector->matrix($from, $fromOffset, self::ROW, $this->response, self::ROW, $to, $toOffset, $rows, self::ROW, self::ROW);
        $vector->matrix($this->states, 0, $order, $this->observed, $order, $to, $toOffset, $rows, self::ROW, $order, true);
    }

    /** Adds to each group what the state before it leaves in its rows. */
    private function carry(FloatBuffer $room, int $groups, int $width): void
    {
        $begins = [];
        $ends = [];
        for ($group = 0; $group < $groups; $group++) {
            array_push($ends, ...array_values(unpack('f*', $room->bytes($group * ($width + $this->order) + $width, $this->order)) ?: []));
        }
        for ($group = 0; $group < $groups; $group++) {
            array_push($begins, ...$this->state);
            $next = [];
            for ($row = 0; $row < $this->order; $row++) {
                $sum = (float) $ends[$group * $this->order + $row];
                foreach ($this->state as $column => $value) {
                    $sum += $this->decay[$row][$column] * $value;
                }
                $next[] = $sum;
            }
            $this->state = $next;
        }
        for ($group = 0; $group < $groups; $group++) {
            $this->states->copy($group * $width, $room, $group * ($width + $this->order), $width);
        }
        VectorMath::get()->matrix(FloatBuffer::fromBytes(pack('f*', ...$begins)), 0, $this->order, $this->begun, $this->order, $this->states, 0, $groups, $width, $this->order, true);
    }

    /**
     * @param  array<int, list<float>>  $step  for each part of the state, the whole state one row later
     * @return array{FloatBuffer, list<list<float>>}
     */
    private function groups(array $step): array
    {
        $order = $this->order;
        $apply = function (array $vector) use ($step, $order): array {
            $next = array_fill(0, $order, 0.0);
            foreach ($vector as $index => $value) {
                for ($row = 0; $row < $order; $row++) {
                    $next[$row] += $step[$index][$row] * $value;
                }
            }

            return $next;
        };
        $width = self::GROUP * $order;
        // powers[n][i]: the state n rows after part i of it was 1
        $powers = [];
        for ($index = 0; $index < $order; $index++) {
            $vector = array_fill(0, $order, 0.0);
            $vector[$index] = 1.0;
            for ($row = 0; $row <= self::GROUP; $row++) {
                $powers[$row][$index] = $vector;
                $vector = $apply($vector);
            }
        }
        $spread = [];
        for ($row = 0; $row <= self::GROUP; $row++) {
            for ($part = 0; $part < $order; $part++) {
                for ($column = 0; $column < $width; $column++) {
                    $distance = $row - 1 - intdiv($column, $order);
                    $spread[] = $distance < 0 ? 0.0 : $powers[$distance][$column % $order][$part];
                }
            }
        }
        $begun = [];
        for ($row = 0; $row < self::GROUP; $row++) {
            for ($part = 0; $part < $order; $part++) {
                for ($column = 0; $column < $order; $column++) {
                    $begun[] = $powers[$row][$column][$part];
                }
            }
        }
        $this->begun = FloatBuffer::fromBytes(pack('f*', ...$begun));
        $decay = [];
        for ($part = 0; $part < $order; $part++) {
            $decay[] = array_map(fn (int $column): float => $powers[self::GROUP][$column][$part], range(0, $order - 1));
        }

        return [FloatBuffer::fromBytes(pack('f*', ...$spread)), $decay];
    }

    /**
     * Sample by sample, to find the matrices.
     *
     * @param  list<Biquad>  $chain
     * @param  list<float>  $state  two numbers a filter (transposed direct form II)
     * @param  list<float>  $input
     * @return array{list<float>, list<list<float>>} outputs, and the state after each
     */
    private static function run(array $chain, array $state, array $input): array
    {
        $outputs = [];
        $states = [];
        foreach ($input as $sample) {
            foreach ($chain as $index => $filter) {
                $output = $filter->b0 * $sample + $state[2 * $index];
                $state[2 * $index] = $filter->b1 * $sample - $filter->a1 * $output + $state[2 * $index + 1];
                $state[2 * $index + 1] = $filter->b2 * $sample - $filter->a2 * $output;
                $sample = $output;
            }
            $outputs[] = $sample;
            $states[] = array_values($state);
        }

        return [$outputs, $states];
    }
}
