<?php

declare(strict_types=1);

namespace Octavox\Core\Listening;

use Octavox\Core\Bytes\ByteSink;
use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Sound\Native\SampleForms;
use Octavox\Core\Sound\Native\VectorMath;
use Octavox\Core\Sound\PlanarMeter;

/**
 * Writes the lowest and highest value of every so many samples of each channel, in several resolutions, as the sound comes: whoever
 * reads meanwhile sees as much as is done. The layout of the file is told by {@see RibbonShape}.
 */
final class RibbonWriter implements PlanarMeter
{
    /** @var array<int, list<int>> values of each resolution that are not written yet */
    private array $pending = [];

    /** @var array<int, int> steps of each resolution that are written */
    private array $written = [];

    private int $done = 0;

    private readonly RibbonShape $shape;

    /** @param  int  $begins  the sample at which this writer begins: 0 lays out the file, later ones, a multiple of the coarsest step, only fill in */
    public function __construct(private readonly ByteSink $sink, int $rate, private readonly int $channels, int $samples, private readonly int $begins = 0)
    {
        $this->shape = new RibbonShape($rate, $channels, $samples);
        foreach ($this->shape->levels() as $level => $step) {
            $this->pending[$level] = [];
            $this->written[$level] = intdiv($begins, $step);
        }
        $this->done = $begins;
        if ($begins > 0) {
            return;
        }
        $this->sink->write($this->shape->head(0));
        for ($left = $this->shape->bytes() - RibbonShape::HEAD; $left > 0; $left -= 1 << 20) {
            $this->sink->write(str_repeat("\0", min($left, 1 << 20)));
        }
    }

    public function take(array $channels, int $frames): void
    {
        $frames = min($frames, $this->shape->samples - $this->done);
        $values = $frames === 0 ? [] : VectorMath::get()->extremes($channels, $frames, RibbonShape::FINEST);
        $steps = FloatBuffer::fromBytes(pack('f*', ...$values));
        array_push($this->pending[0], ...array_values(unpack('s*', SampleForms::get()->bytes16($steps, 0, count($values))) ?: []));
        $this->done += $frames;
        $this->settle($this->done >= $this->shape->samples);
    }

    /** Everything is there, even where the source gave less than it said. */
    public function finish(): void
    {
        $this->settle(true);
        if ($this->begins === 0) {
            $this->sink->replace(0, $this->shape->head($this->shape->samples));
        }
    }

    private function settle(bool $last): void
    {
        $width = 2 * $this->channels;
        foreach (array_keys($this->pending) as $level) {
            $steps = intdiv(count($this->pending[$level]), $width);
            $use = $last || ! isset($this->pending[$level + 1]) ? $steps : $steps - $steps % RibbonShape::COARSER;
            if ($use === 0) {
                continue;
            }
            $values = array_splice($this->pending[$level], 0, $use * $width);
            $use = min($use, max(0, $this->shape->steps($level) - $this->written[$level]));
            $this->sink->replace($this->shape->place($level) + $this->written[$level] * $width * 2, pack('v*', ...array_map(fn (int $value): int => $value & 0xFFFF, array_slice($values, 0, $use * $width))));
            $this->written[$level] += $use;
            if (isset($this->pending[$level + 1])) {
                array_push($this->pending[$level + 1], ...$this->coarser($values));
            }
        }
        if ($this->begins === 0) {
            $this->sink->replace(0, $this->shape->head($this->done));
        }
    }

    /**
     * @param  list<int>  $values
     * @return list<int>
     */
    private function coarser(array $values): array
    {
        $width = 2 * $this->channels;
        $result = [];
        foreach (array_chunk($values, max(1, $width * RibbonShape::COARSER)) as $group) {
            for ($column = 0; $column < $width; $column++) {
                $stack = [];
                for ($at = $column, $end = count($group); $at < $end; $at += $width) {
                    $stack[] = $group[$at];
                }
                $result[] = $column % 2 === 0 ? min([0x7FFF, ...$stack]) : max([-0x7FFF, ...$stack]);
            }
        }

        return $result;
    }
}
