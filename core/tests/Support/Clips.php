<?php

declare(strict_types=1);

namespace Octavox\Core\Tests\Support;

/** Made-up clips at 16 kHz, each with what a person would say is wrong with it. */
final class Clips
{
    private const RATE = 16000;

    private const COUNT = 8 * self::RATE;

    /** @return iterable<string, array{list<list<float>>, list<string>}> channels and the codes of findings */
    public static function all(): iterable
    {
        $voice = self::voice(1);
        $other = self::voice(2);
        $music = self::music(3);
        $hall = self::noise(7, 0.02);
        $street = self::noise(8, 0.05);

        // Two microphones.
        yield 'clip-on and boom' => [[$voice, self::add(self::dull(self::later(self::gain($voice, 0.4), 90)), $hall)], ['two-microphones']];
        yield 'boom and clip-on' => [[self::add(self::dull(self::later(self::gain($voice, 0.3), 140)), $hall), $voice],
            ['two-microphones']];
        yield 'clip-on and camera, far off' => [[$other, self::add(self::dull(self::later(self::gain($other, 0.25), 300)), $street)],
            ['two-microphones']];
        yield 'two people, one each' => [[$voice, self::gain($other, 0.9)], ['two-microphones']];
        yield 'two people who take turns' => [[self::turns($voice, true), self::turns($other, false)], ['two-microphones']];
        yield 'speaker and room' => [[$voice, self::add(self::dull(self::echo($voice)), self::gain($street, 0.5))], ['two-microphones']];
        yield 'two people with bleed' => [[self::add($voice, self::later(self::gain($other, 0.15), 60)), self::add($other,
            self::later(self::gain($voice, 0.15), 60))], ['two-microphones']];

        // Stereo images.
        yield 'music, mixed' => [self::mixed($music, 0.35), []];
        yield 'music, wide' => [self::mixed($music, 0.8), []];
        yield 'music, narrow' => [self::mixed($music, 0.05), []];
        yield 'voice in the middle with a bed' => [array_map(fn (array $bed): array => self::add($voice, self::gain($bed, 0.3)),
            self::mixed($music, 0.6)), []];
        yield 'street, recorded as a pair' => [[self::add(self::gain($street, 1.0), self::noise(11, 0.03)), self::add(self::gain($street,
            1.0), self::noise(12, 0.03))], []];
        yield 'rain, wide' => [[self::noise(21, 0.2), self::noise(22, 0.2)], []];
        yield 'voice a little left' => [[self::add($voice, self::noise(31, 0.003)), self::add(self::gain($voice, 0.7), self::noise(32,
            0.003))], []];
        yield 'crowd, recorded as a pair' => [[self::add(self::add($voice, self::later($other, 40)), self::noise(41, 0.02)),
            self::add(self::add(self::later($voice, 2), $other), self::noise(42, 0.02))], []];

        // The others.
        yield 'left only' => [[$voice, array_fill(0, self::COUNT, 0.0)], ['silent-side']];
        yield 'right only, with hiss on the left' => [[self::noise(51, 0.0015), $voice], ['silent-side']];
        yield 'same on both' => [[$voice, $voice], ['identical-sides']];
        yield 'one side flipped' => [[$voice, self::gain($voice, -1.0)], ['flipped']];
        yield 'one side flipped, with hiss' => [[self::add($music, self::noise(61, 0.01)), self::add(self::gain($music, -0.9),
            self::noise(62, 0.01))], ['flipped']];
        yield 'silence' => [[array_fill(0, self::COUNT, 0.0)], ['silent']];
        yield 'silence in stereo' => [[self::noise(71, 0.00005), self::noise(72, 0.00005)], ['silent']];
        yield 'clipped' => [[array_map(fn (float $sample): float => max(-1.0, min(1.0, 4 * $sample)), $voice)], ['clipped']];
        yield 'clipped on one side' => [[array_map(fn (float $sample): float => max(-0.99, min(0.99, 3 * $sample)), $music),
            self::gain($music, 0.9)], ['clipped']];
        yield 'loud, not clipped' => [[self::gain($voice, 0.97 / max(array_map(abs(...), $voice)))], []];
        yield 'very low' => [[self::gain($voice, 0.006)], ['low-level']];
        yield 'very low in stereo' => [array_map(fn (array $side): array => self::gain($side, 0.01), self::mixed($music, 0.35)),
            ['low-level']];
        yield 'mono voice' => [[$voice], []];
    }

    /**
     * Something like speech: a buzz with formants in syllables and pauses.
     *
     * @return list<float>
     */
    private static function voice(int $seed): array
    {
        mt_srand($seed);
        $samples = [];
        $pitch = $seed === 1 ? 120.0 : 190.0;
        $formants = [[500.0, 0.5], [1500.0, 0.3], [2500.0, 0.2], [4000.0, 0.1]];
        $phase = 0.0;
        $level = 0.0;
        $target = 0.0;
        $left = 0;
        for ($index = 0; $index < self::COUNT; $index++) {
            if ($left-- <= 0) {
                $left = mt_rand(1200, 4200);
                $target = mt_rand(0, 3) === 0 ? 0.0 : mt_rand(40, 100) / 100;
                $pitch *= mt_rand(90, 111) / 100;
                $pitch = max(90.0, min(240.0, $pitch));
                foreach ($formants as $number => $ignored) {
                    $formants[$number][0] = [500.0, 1500.0, 2500.0, 4000.0][$number] * mt_rand(75, 130) / 100;
                }
            }
            $level += ($target - $level) * 0.003;
            $phase = fmod($phase + $pitch / self::RATE, 1.0);
            $sum = 0.0;
            foreach ($formants as [$hertz, $gain]) {
                $sum += $gain * sin(2 * M_PI * $hertz * $phase / $pitch) * exp(-5 * $phase);
            }
            $samples[] = 0.5 * $level * ($sum + 0.05 * (mt_rand(-1000, 1000) / 1000));
        }

        return $samples;
    }

    /** @return list<float> */
    private static function music(int $seed): array
    {
        mt_srand($seed);
        $samples = [];
        $notes = [220.0, 277.2, 329.6];
        for ($index = 0; $index < self::COUNT; $index++) {
            if ($index % 8000 === 0) {
                $root = 110.0 * 2 ** (mt_rand(0, 12) / 12);
                $notes = [$root, $root * 1.25, $root * 1.5, $root * 3];
            }
            $swell = exp(-($index % 8000) / 5000);
            $samples[] = 0.12 * $swell * array_sum(array_map(fn (float $note): float => sin(2 * M_PI * $note * $index / self::RATE) +
                0.4 * sin(4 * M_PI * $note * $index / self::RATE), $notes));
        }

        return $samples;
    }

    /**
     * @param  list<float>  $mono
     * @return list<list<float>> two sides with so much of their own
     */
    private static function mixed(array $mono, float $wide): array
    {
        return [self::add($mono, self::gain(self::music(5), $wide)), self::add($mono, self::gain(self::music(6), $wide))];
    }

    /** @return list<float> */
    private static function noise(int $seed, float $level): array
    {
        mt_srand($seed);
        $samples = [];
        for ($index = 0; $index < self::COUNT; $index++) {
            $samples[] = $level * mt_rand(-1000, 1000) / 1000;
        }

        return $samples;
    }

    /**
     * @param  list<float>  $samples
     * @return list<float>
     */
    private static function gain(array $samples, float $gain): array
    {
        return array_map(fn (float $sample): float => $gain * $sample, $samples);
    }

    /**
     * @param  list<float>  $a
     * @param  list<float>  $b
     * @return list<float>
     */
    private static function add(array $a, array $b): array
    {
        return array_map(fn (float $x, float $y): float => $x + $y, $a, $b);
    }

    /**
     * @param  list<float>  $samples
     * @return list<float>
     */
    private static function later(array $samples, int $by): array
    {
        return [...array_fill(0, $by, 0.0), ...array_slice($samples, 0, self::COUNT - $by)];
    }

    /**
     * As heard from afar: less treble.
     *
     * @param  list<float>  $samples
     * @return list<float>
     */
    private static function dull(array $samples): array
    {
        $held = 0.0;
        foreach ($samples as $index => $sample) {
            $held += 0.35 * ($sample - $held);
            $samples[$index] = 1.6 * $held;
        }

        return $samples;
    }

    /**
     * @param  list<float>  $samples
     * @return list<float>
     */
    private static function echo(array $samples): array
    {
        return self::add(self::add(self::gain(self::later($samples, 180), 0.3), self::gain(self::later($samples, 1100), 0.25)),
            self::gain(self::later($samples, 2300), 0.2));
    }

    /**
     * @param  list<float>  $samples
     * @return list<float>
     */
    private static function turns(array $samples, bool $first): array
    {
        foreach ($samples as $index => $sample) {
            $samples[$index] = (intdiv($index, 2 * self::RATE) % 2 === 0) === $first ? $sample : 0.02 * $sample;
        }

        return $samples;
    }
}
