<?php

declare(strict_types=1);

namespace Octavox\Core\Analysis;

use Octavox\Core\Bytes\ByteSink;
use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\FileUnwritable;
use Octavox\Core\Failure;
use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Sound\Native\SampleConversion;
use Octavox\Core\Sound\Native\VectorMath;
use Octavox\Core\Sound\PlanarMeter;

/**
 * Writes the lowest and highest value of every so many samples of each channel, in several resolutions, as the sound comes: whoever
 * reads meanwhile sees as much as is done. The layout of the file is told by {@see WaveformLayout}.
 */
final class WaveformWriter implements PlanarMeter
{
    /** Steps of the finest resolution that are written together; whoever watches sees that many more at once. */
    private const TOGETHER = 1024;

    /** @var list<float> of the finest resolution, not written yet */
    private array $finest = [];

    /** @var array<int, list<int>> values of each coarser resolution that are not written yet */
    private array $pending = [];

    /** @var array<int, int> steps of each resolution that are written */
    private array $written = [];

    private int $done = 0;

    private readonly WaveformLayout $layout;

    /**
     * @param  int  $begins  the sample at which this writer begins: 0 lays out the file, later ones, a multiple of the coarsest step, only
     * fill in
     *
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function __construct(private readonly ByteSink $sink, int $rate, private readonly int $channels, int $samples,
        private readonly int $begins = 0)
    {
        $this->layout = new WaveformLayout($rate, $channels, $samples);
        foreach ($this->layout->levels() as $level => $step) {
            $this->pending[$level] = [];
            $this->written[$level] = intdiv($begins, $step);
        }
        $this->done = $begins;
        if ($begins > 0) {
            return;
        }
        $this->sink->write($this->layout->head(0));
        $this->sink->reserve($this->layout->bytes() - WaveformLayout::HEAD);
    }

    /**
     * @throws Failure
     */
    public function take(array $channels, int $frames): void
    {
        $frames = min($frames, $this->layout->samples - $this->done);
        if ($frames > 0) {
            array_push($this->finest, ...VectorMath::get()->extremes($channels, $frames, WaveformLayout::FINEST));
        }
        $this->done += $frames;
        // What comes first is shown at once.
        if ($this->written[0] === 0 || count($this->finest) >= self::TOGETHER * 2 * $this->channels
            || $this->done >= $this->layout->samples) {
            $this->writeSteps($this->done >= $this->layout->samples);
        }
    }

    /**
     * Everything is there, even where the source gave less than it said.
     *
     * @throws Failure
     */
    public function finish(): void
    {
        $this->writeSteps(true);
        if ($this->begins === 0) {
            $this->sink->replace(0, $this->layout->head($this->layout->samples));
        }
    }

    /**
     * @throws Failure
     */
    private function writeSteps(bool $last): void
    {
        $steps = FloatBuffer::fromBytes(pack('f*', ...$this->finest));
        $values = array_values(array_map(intval(...),
            unpack('s*', SampleConversion::get()->bytes16($steps, 0, count($this->finest))) ?: []));
        $this->finest = [];
        foreach (array_keys($this->pending) as $level) {
            $values = [...$this->pending[$level], ...$values];
            $steps = intdiv(count($values), 2 * $this->channels);
            $use = $last || ! isset($this->pending[$level + 1]) ? $steps : $steps - $steps % WaveformLayout::COARSER;
            $this->pending[$level] = array_slice($values, $use * 2 * $this->channels);
            $values = array_slice($values, 0, $use * 2 * $this->channels);
            $this->place($level, $values);
            $values = $this->coarser($values);
        }
        if ($this->begins === 0) {
            $this->sink->replace(0, $this->layout->head($this->done));
        }
    }

    /**
     * @param  list<int>  $values  of whole steps; those beyond the end are left out
     *
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function place(int $level, array $values): void
    {
        $width = 2 * $this->channels;
        $steps = min(intdiv(count($values), $width), max(0, $this->layout->steps($level) - $this->written[$level]));
        if ($steps > 0) {
            $this->sink->replace($this->layout->place($level) + $this->written[$level] * $width * 2,
                substr(pack('v*', ...$values), 0, $steps * $width * 2));
            $this->written[$level] += $steps;
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
        $end = count($values);
        for ($from = 0; $from < $end; $from += $width * WaveformLayout::COARSER) {
            $until = min($end, $from + $width * WaveformLayout::COARSER);
            for ($column = 0; $column < $width; $column++) {
                $found = $values[$from + $column] ?? 0;
                for ($at = $from + $column + $width; $at < $until; $at += $width) {
                    $value = $values[$at] ?? $found;
                    $found = $column % 2 === 0 ? min($found, $value) : max($found, $value);
                }
                $result[] = $found;
            }
        }

        return $result;
    }
}
