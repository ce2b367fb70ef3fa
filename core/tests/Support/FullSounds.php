<?php

declare(strict_types=1);

namespace Octavox\Core\Tests\Support;

/** Made-up voices and music at 48 kHz that reach as high as real ones do. */
final class FullSounds
{
    public const RATE = 48_000;

    private const COUNT = 2 * self::RATE;

    /** @return array<string, list<float>> one channel each, by what it is */
    public static function all(): array
    {
        return ['deep voice' => self::voice(1, 105.0), 'voice' => self::voice(2, 150.0), 'high voice' => self::voice(3, 215.0),
            'another voice' => self::voice(4, 128.0), 'strings' => self::music(5, 0.0), 'band' => self::music(6, 0.05)];
    }

    /**
     * A buzz through formants in syllables, hissing consonants, breath.
     *
     * @return list<float>
     */
    private static function voice(int $seed, float $pitch): array
    {
        mt_srand($seed);
        $samples = [];
        $phase = $level = $target = $hiss = $hissing = $before = $low = 0.0;
        $left = 0;
        $formants = [500.0, 1500.0, 2500.0, 3800.0, 5200.0];
        for ($index = 0; $index < self::COUNT; $index++) {
            if ($left-- <= 0) {
                $left = mt_rand(3000, 11_000);
                $kind = mt_rand(0, 9);
                $target = $kind < 2 ? 0.0 : mt_rand(40, 100) / 100;
                $hissing = $kind >= 2 && $kind < 4 ? 0.07 : 0.0;
                $target = $hissing > 0 ? 0.05 : $target;
                $now = $pitch * mt_rand(88, 114) / 100;
                $formants = array_map(fn (float $one): float => $one * mt_rand(75, 130) / 100, [500.0, 1500.0, 2500.0, 3800.0, 5200.0]);
            }
            $level += ($target - $level) * 0.001;
            $hiss += ($hissing - $hiss) * 0.002;
            $phase = fmod($phase + ($now ?? $pitch) / self::RATE, 1.0);
            $seconds = $phase / ($now ?? $pitch);
            $sum = 0.0;
            foreach ($formants as $number => $hertz) {
                $sum += [0.5, 0.22, 0.12, 0.06, 0.03][$number] * sin(2 * M_PI * $hertz * $seconds) * exp(-(250 + 90 * $number) * $seconds);
            }
            $noise = mt_rand(-1000, 1000) / 1000;
            $high = $noise - $before;
            $before = $noise;
            $low += ($noise - $low) * 0.05;
            $samples[] = 0.6 * $level * $sum + 0.5 * $hiss * $high + 0.0015 * $low + 0.004 * $level * $noise;
        }

        return $samples;
    }

    /** @return list<float> */
    private static function music(int $seed, float $beat): array
    {
        mt_srand($seed);
        $samples = [];
        $notes = [];
        $before = 0.0;
        for ($index = 0; $index < self::COUNT; $index++) {
            $at = $index % 24_000;
            if ($at === 0) {
                $root = 98.0 * 2 ** (mt_rand(0, 12) / 12);
                $notes = array_map(fn (float $ratio): float => 2 * M_PI * $root * $ratio / self::RATE, [1.0, 1.5, 2.0, 2.52]);
            }
            $swell = 0.12 * exp(-$at / 16_000);
            $sum = 0.0;
            foreach ($notes as $note) {
                for ($partial = 1; $partial <= 24; $partial++) {
                    $sum += sin($note * $partial * $index) / $partial ** 1.3;
                }
            }
            $noise = mt_rand(-1000, 1000) / 1000;
            $samples[] = $swell * $sum + $beat * exp(-($index % 6000) / 900) * ($noise - $before) + 0.0005 * $noise;
            $before = $noise;
        }

        return $samples;
    }
}
