<?php

declare(strict_types=1);

namespace App\Sources\Values;

use Octavox\Core\Analysis\Waveform;
use Octavox\Core\Analysis\WaveformLayout;
use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileUnreadable;

/** A whole waveform as one small picture, its channels one beneath the other. */
final readonly class WaveformDrawing
{
    private const WIDTH = 600;

    private const HEIGHT = 64;

    /** @param  list<string>  $paths  one a channel */
    private function __construct(public array $paths) {}

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public static function of(Waveform $waveform): self
    {
        [$step, , $bytes] = $waveform->window(0, $waveform->layout->samples, 8 * self::WIDTH);
        $values = WaveformLayout::values($bytes);
        $channels = $waveform->layout->channels;
        $steps = intdiv(count($values), 2 * $channels);
        $high = self::HEIGHT / $channels;
        $paths = [];
        for ($channel = 0; $channel < $channels; $channel++) {
            $columns = [];
            for ($index = 0; $index < $steps; $index++) {
                $column = (int) ($index * $step * self::WIDTH / max(1, $waveform->layout->samples));
                $place = 2 * ($index * $channels + $channel);
                $columns[$column] = [min($columns[$column][0] ?? 32767, $values[$place]),
                    max($columns[$column][1] ?? -32767, $values[$place + 1])];
            }
            $middle = $high * ($channel + 0.5);
            $path = '';
            foreach ($columns as $column => [$low, $most]) {
                $path .= sprintf('M%d %.1fV%.1f', $column, $middle - $most / 65536 * $high,
                    max($middle - $low / 65536 * $high, $middle - $most / 65536 * $high + 0.6));
            }
            $paths[] = $path;
        }

        return new self($paths);
    }

    public function svg(): string
    {
        return sprintf('<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 %d %d" preserveAspectRatio="none">%s</svg>', self::WIDTH,
            self::HEIGHT, implode('',
                array_map(fn (string $path): string => '<path d="'.$path.'" stroke="#5c5158" fill="none"/>', $this->paths)));
    }
}
