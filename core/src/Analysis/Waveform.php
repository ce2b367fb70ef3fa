<?php

declare(strict_types=1);

namespace Octavox\Core\Analysis;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileUnreadable;

/** A waveform file, read while it may still be growing. */
final readonly class Waveform
{
    private function __construct(private ByteSource $bytes, public WaveformLayout $layout, public int $done) {}

    /**
     * @return ?self null where that is no waveform file
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public static function open(ByteSource $bytes): ?self
    {
        $read = $bytes->size() >= WaveformLayout::HEAD ? WaveformLayout::read($bytes->read(0, WaveformLayout::HEAD)) : null;

        return $read === null || $bytes->size() < $read[0]->bytes() ? null : new self($bytes, $read[0], $read[1]);
    }

    /**
     * The finest resolution that gives no more steps than are asked for.
     *
     * @param  int  $from  samples
     * @param  int  $until  samples
     * @return array{int, int, string} samples a step, number of the first step, the steps as {@see WaveformLayout} tells them
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function window(int $from, int $until, int $most): array
    {
        $from = max(0, min($from, $this->layout->samples));
        $until = max($from, min($until, $this->layout->samples));
        $levels = $this->layout->levels();
        $chosen = count($levels) - 1;
        foreach ($levels as $level => $step) {
            if (intdiv($until - $from, $step) + 2 <= $most) {
                $chosen = $level;
                break;
            }
        }
        $step = $levels[$chosen];
        $first = intdiv($from, $step);
        $count = min($this->layout->steps($chosen), intdiv($until + $step - 1, $step)) - $first;
        $width = $this->layout->stepBytes();

        return [$step, $first, $count < 1 ? '' : $this->bytes->read($this->layout->place($chosen) + $first * $width, $count * $width)];
    }

    /**
     * Stretches in which no channel rises above a level, to 512 samples.
     *
     * @param  float  $level  1.0 is full scale
     * @param  int  $least  samples that a stretch must last
     * @return list<array{int, int}> from and until, in samples
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function silences(float $level, int $least): array
    {
        $most = (int) round($level * 32767);
        $width = 2 * $this->layout->channels;
        $silences = [];
        $began = null;
        $steps = $this->layout->steps(0);
        for ($step = 0; $step < $steps; $step += 4096) {
            $count = min(4096, $steps - $step);
            $values = WaveformLayout::values($this->bytes->read($this->layout->place(0) + $step * 2 * $width, $count * 2 * $width));
            foreach (array_chunk($values, max(1, $width)) as $index => $group) {
                $quiet = max(array_map(abs(...), $group)) <= $most;
                $at = ($step + $index) * WaveformLayout::FINEST;
                if ($quiet) {
                    $began ??= $at;
                } elseif ($began !== null) {
                    $silences[] = [$began, $at];
                    $began = null;
                }
            }
        }
        if ($began !== null) {
            $silences[] = [$began, $this->layout->samples];
        }

        return array_values(array_filter($silences, fn (array $silence): bool => $least <= $silence[1] - $silence[0]));
    }
}
