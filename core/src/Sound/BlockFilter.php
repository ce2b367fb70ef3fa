<?php

declare(strict_types=1);

namespace Octavox\Core\Sound;

use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Sound\Native\LibraryMissing;
use Octavox\Core\Sound\Native\Rows;
use Octavox\Core\Sound\Native\VectorMath;

/**
 * A chain of recursive filters over one channel, computed as products of matrices instead of sample by sample.
 *
 * A row of N samples and the filter's state before it give, by fixed matrices, the row's output and what the row adds to the state
 * after it. The states of GROUP rows follow from those sums by one more product, and those of up to STRETCH groups by another.
 */
final class BlockFilter
{
    private const ROW = 64;

    private const GROUP = 32;

    private const STRETCH = 16;

    private const NOTHING = 1e-20;

    private readonly int $order;

    private readonly FloatBuffer $response;

    private readonly FloatBuffer $observed;

    private readonly FloatBuffer $gathered;

    /** What the rows of a group leave in the states before each of them. */
    private readonly FloatBuffer $spread;

    /** What they leave in the state after the group. */
    private readonly FloatBuffer $ending;

    /** What a state before a group leaves in each of its rows. */
    private readonly FloatBuffer $begun;

    /** What the ends of groups and the state before the first give for the states before each and after the last. */
    private readonly FloatBuffer $chained;

    /** What each group leaves, then the state before the first. */
    private readonly FloatBuffer $ends;

    /** States before each group and after the last. */
    private readonly FloatBuffer $begins;

    private readonly FloatBuffer $sums;

    private readonly FloatBuffer $states;

    /** @throws BlockTooLarge */
    public function __construct(Biquad ...$chain)
    {
        $chain = array_values($chain);
        $this->order = 2 * count($chain);
        $rest = array_fill(0, $this->order, 0.0);
        $responses = [];
        $gathered = [];
        // The response to one sample at the start of a row, and the states that it leaves after each.
        [$impulse, $after] = self::run($chain, $rest, [1.0, ...array_fill(0, self::ROW - 1, 0.0)]);
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
        $this->response = self::matrix($responses);
        $this->gathered = self::matrix($gathered);
        $this->observed = self::matrix(array_values($observed));
        $powers = self::powers($step, self::GROUP);
        [$this->spread, $this->ending, $this->begun] = $this->groups($powers);
        $this->chained = $this->chained($powers[self::GROUP]);
        $this->ends = new FloatBuffer((self::STRETCH + 1) * $this->order);
        $this->begins = new FloatBuffer((self::STRETCH + 1) * $this->order);
        $this->sums = new FloatBuffer(self::STRETCH * self::GROUP * $this->order);
        $this->states = new FloatBuffer(self::STRETCH * self::GROUP * $this->order);
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
     *
     * @throws LibraryMissing
     */
    public function filter(FloatBuffer $from, int $fromOffset, FloatBuffer $to, int $toOffset, int $count): void
    {
        for ($done = 0; $done < $count; $done += $part) {
            $part = min($count - $done, self::STRETCH * self::step());
            $this->stretch($from, $fromOffset + $done, $to, $toOffset + $done, intdiv($part, self::step()));
        }
    }

    /**
     * @param  int  $groups  no more than STRETCH
     *
     * @throws LibraryMissing
     */
    private function stretch(FloatBuffer $from, int $fromOffset, FloatBuffer $to, int $toOffset, int $groups): void
    {
        $rows = $groups * self::GROUP;
        $order = $this->order;
        $width = self::GROUP * $order;
        $chain = (self::STRETCH + 1) * $order;
        $vector = VectorMath::get();
        $heard = new Rows($from, $fromOffset, self::ROW, $rows, self::ROW);
        $sums = new Rows($this->sums, 0, $width, $groups, $width);
        $vector->multiply($heard, $this->gathered, $this->sums, 0, $order);
        // As if each group began at rest; then what the states before the groups add.
        $vector->multiply($sums, $this->spread, $this->states, 0, $width);
        $vector->multiply($sums, $this->ending, $this->ends, 0, $order);
        $vector->multiply(new Rows($this->ends, 0, $chain, 1, $chain), $this->chained, $this->begins, 0, $chain);
        $vector->multiply(new Rows($this->begins, 0, $order, $groups, $order), $this->begun, $this->states, 0, $width, true);
        $vector->multiply($heard, $this->response, $to, $toOffset, self::ROW);
        $vector->multiply(new Rows($this->states, 0, $order, $rows, $order), $this->observed, $to, $toOffset, self::ROW, true);
        // What stands after the ends is the state before the first group of the next stretch.
        $this->ends->copy(self::STRETCH * $order, $this->begins, $groups * $order, $order);
    }

    /**
     * @param  array<int, list<float>>  $step  for each part of the state, the whole state one step later
     * @return list<list<list<float>>> [n][i]: the state n steps after part i of it was 1
     */
    private static function powers(array $step, int $most): array
    {
        $unit = fn (int $part): array => array_map(fn (int $index): float => $index === $part ? 1.0 : 0.0, range(0, count($step) - 1));
        $states = array_map($unit, range(0, count($step) - 1));
        $powers = [];
        for ($row = 0; $row <= $most; $row++) {
            $powers[] = $states;
            $states = array_map(function (array $state) use ($step): array {
                $next = array_fill(0, count($state), 0.0);
                foreach ($state as $index => $value) {
                    $next = array_map(fn (float $sum, float $part): float => $sum + $part * $value, $next, $step[$index]);
                }

                return $next;
            }, $states);
        }

        return $powers;
    }

    /**
     * @param  list<list<list<float>>>  $powers  of rows
     * @return array{FloatBuffer, FloatBuffer, FloatBuffer} spread, ending, begun
     *
     * @throws BlockTooLarge
     */
    private function groups(array $powers): array
    {
        $order = $this->order;
        $width = self::GROUP * $order;
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

        return [self::matrix(array_slice($spread, 0, $width * $width)), self::matrix(array_slice($spread, $width * $width)),
            self::matrix($begun)];
    }

    /**
     * @param  list<list<float>>  $step  for each part of the state, the whole state one group later
     *
     * @throws BlockTooLarge
     */
    private function chained(array $step): FloatBuffer
    {
        $order = $this->order;
        $powers = self::powers($step, self::STRETCH);
        $numbers = [];
        for ($row = 0; $row <= self::STRETCH; $row++) {
            for ($part = 0; $part < $order; $part++) {
                for ($column = 0; $column < self::STRETCH * $order; $column++) {
                    $distance = $row - 1 - intdiv($column, $order);
                    $numbers[] = $distance < 0 ? 0.0 : $powers[$distance][$column % $order][$part];
                }
                for ($column = 0; $column < $order; $column++) {
                    $numbers[] = $powers[$row][$column][$part];
                }
            }
        }

        return self::matrix($numbers);
    }

    /**
     * Numbers so small that they mean nothing are zero: processors multiply denormal ones a hundred times more slowly.
     *
     * @param  list<float>  $numbers
     *
     * @throws BlockTooLarge
     */
    private static function matrix(array $numbers): FloatBuffer
    {
        return FloatBuffer::fromBytes(pack('f*',
            ...array_map(fn (float $number): float => abs($number) < self::NOTHING ? 0.0 : $number, $numbers)));
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
