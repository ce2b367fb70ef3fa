<?php

declare(strict_types=1);

namespace Octavox\Demo;

use Octavox\Core\Decode\FrameReader;
use Octavox\Core\Failure;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Sound\RateChange;

/** Made-up sounds as lists of samples at 48 kHz: voices, water, chains, birds, a small tune. The same every time. */
final class Signals
{
    public const RATE = 48000;

    private int $state = 20261124;

    /**
     * @return list<float> a voice that is shipped with the demo data
     *
     * @throws Failure
     */
    public function voice(string $name): array
    {
        $reader = FrameReader::open(dirname(__DIR__).'/voices/'.$name.'.mp3');
        $room = new FloatBuffer($reader->frames * $reader->channels);
        $frames = $reader->read($room, $reader->frames);
        $change = new RateChange($reader->rate, self::RATE, $reader->channels, true);
        $samples = [];
        foreach ([$change->take(new Block($room, $frames, $reader->channels)), $change->finish()] as $blocks) {
            foreach ($blocks as $block) {
                array_push($samples, ...$block->toChannels()[0]);
            }
        }

        return $samples;
    }

    /** @return list<float> noise that swells slowly, as of water over a weir */
    public function water(int $count, float $level): array
    {
        $samples = [];
        $low = 0.0;
        for ($index = 0; $index < $count; $index++) {
            $low += 0.12 * ($this->noise() - $low);
            $samples[] = $level * $low * (1.4 + sin($index * 2 * M_PI * 0.13 / self::RATE));
        }

        return $samples;
    }

    /** @return list<float> short falling whistles, a few a second */
    public function birds(int $count, float $level): array
    {
        $samples = array_fill(0, $count, 0.0);
        for ($start = 9000; $start < $count - 9000; $start += 14000 + (int) (9000 * abs($this->noise()))) {
            $pitch = 2600 + 1400 * abs($this->noise());
            for ($index = 0; $index < 5400; $index++) {
                $samples[$start + $index] += $level * sin(M_PI * $index / 5400)
                    * sin(2 * M_PI * ($pitch - 0.09 * $index) * $index / self::RATE);
            }
        }

        return array_values($samples);
    }

    /**
     * A plain tune in plucked tones.
     *
     * @param  list<int>  $notes  half tones above A at 220 Hz, −99 is a rest
     * @return list<float>
     */
    public function tune(array $notes, int $count, float $level): array
    {
        $samples = array_fill(0, $count, 0.0);
        foreach ($notes as $place => $note) {
            $start = $place * 18000;
            $pitch = 220 * 2 ** ($note / 12);
            for ($index = 0; $note > -99 && $index < 30000 && $start + $index < $count; $index++) {
                $time = $index / self::RATE;
                $samples[$start + $index] += $level * exp(-4 * $time)
                    * (sin(2 * M_PI * $pitch * $time) + 0.4 * sin(4 * M_PI * $pitch * $time) + 0.15 * sin(6 * M_PI * $pitch * $time));
            }
        }

        return array_values($samples);
    }

    /**
     * The sum of several signals, each from a sample on.
     *
     * @param  list<array{list<float>, int, float}>  $parts  samples, first sample, gain
     * @return list<float>
     */
    public function sum(int $count, array $parts): array
    {
        $samples = array_fill(0, $count, 0.0);
        foreach ($parts as [$part, $start, $gain]) {
            $end = min($count, $start + count($part));
            for ($index = max(0, $start); $index < $end; $index++) {
                $samples[$index] += $gain * $part[$index - $start];
            }
        }

        return array_values($samples);
    }

    /** −1 to 1; a linear congruential generator, Numerical Recipes, 7.1 */
    private function noise(): float
    {
        $this->state = ($this->state * 1664525 + 1013904223) & 0xFFFFFFFF;

        return $this->state / 2147483648 - 1.0;
    }
}
