<?php

declare(strict_types=1);

namespace Octavox\Core\Analysis;

use Octavox\Core\Decode\TrackDecoder;
use Octavox\Core\Failure;
use Octavox\Core\Media\Segment;
use Octavox\Core\Media\Track;
use Octavox\Core\Reading\OpenedSource;
use Octavox\Core\Sound\BlockTooLarge;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Sound\Mix;
use Octavox\Core\Sound\Mixer;
use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Sound\Native\LibraryMissing;
use Octavox\Core\Sound\Native\Rows;
use Octavox\Core\Sound\Native\VectorMath;
use Octavox\Core\Sound\RateChange;
use Octavox\Core\Sound\Stages;

/**
 * By which a sound is known again whatever was done to it: J. Haitsma, T. Kalker, "A Highly Robust Audio Fingerprinting System", ISMIR
 * 2002.
 * Of overlapping frames at about 5 kHz the energies of 33 bands between 300 and 2000 Hz are taken, spaced as ears hear; each of 32 bits
 * says whether the difference between two bands grew since the frame before. Spectra are products with a matrix of windowed waves.
 */
final class Fingerprint
{
    /** Hz; frames of 0.37 s, a new one every 23 ms. */
    private const RATE = 5512;

    private const FRAME = 2048;

    public const HOP = 128;

    private const BANDS = 33;

    private const LOWEST = 300.0;

    private const HIGHEST = 2000.0;

    /** Spectral lines of each band, evenly within it. */
    private const LINES = 6;

    /** Seconds of the sound that are looked at, at the most, from its begin on. */
    private const MOST_SECONDS = 120;

    private const AT_ONCE = 256;

    /** A number that stands in so many places of a sound tells none of them. */
    private const EVERYWHERE = 40;

    /** @var list<FloatBuffer> */
    private static array $waves = [];

    /**
     * @return list<int> 32 bits each; none where the sound is shorter than a frame
     *
     * @throws Failure
     */
    public static function compute(OpenedSource $source, Track $track): array
    {
        $audio = $track->sound ?? throw new \LogicException('Only sound has a fingerprint.');
        $most = self::MOST_SECONDS * $audio->rate;
        $segments = Segment::between($track->timeline->segments, 0, $most);
        $stages = [new RateChange($audio->rate, self::RATE, 1, false)];
        if ($audio->channels() > 1) {
            array_unshift($stages, new Mixer(self::mono($audio->layout)));
        }
        $samples = '';
        foreach (Stages::run((new TrackDecoder($source->media, $track))->blocks($segments), $stages) as $block) {
            $samples .= $block->bytes();
        }

        return self::ofSamples(FloatBuffer::fromBytes($samples === '' ? "\0\0\0\0" : $samples), intdiv(strlen($samples), 4));
    }

    /**
     * How alike two fingerprints are where they fit best: share of bits that differ, 0 to 1; about a half for sounds that have nothing in
     * common.
     *
     * @param  list<int>  $one
     * @param  list<int>  $other
     */
    public static function difference(array $one, array $other): float
    {
        $least = 1.0;
        foreach (self::offsets($one, $other) as $offset) {
            $least = min($least, self::at($one, $other, $offset));
        }

        return $least;
    }

    /**
     * Where the second may begin within the first: offsets at which some of their numbers are the same, the most likely first.
     *
     * @param  list<int>  $one
     * @param  list<int>  $other
     * @return list<int>
     */
    private static function offsets(array $one, array $other): array
    {
        $places = [];
        foreach ($one as $place => $value) {
            $places[$value][] = $place;
        }
        $votes = [];
        foreach ($other as $place => $value) {
            // The numbers themselves, and those in which one bit is another: 4.3 of the paper.
            for ($bit = -1; $bit < 32; $bit++) {
                $near = $bit < 0 ? $value : $value ^ 1 << $bit;
                // What is everywhere, as in silence, says nothing.
                foreach (count($places[$near] ?? []) > self::EVERYWHERE ? [] : $places[$near] ?? [] as $found) {
                    $votes[$found - $place] = ($votes[$found - $place] ?? 0) + ($bit < 0 ? 3 : 1);
                }
            }
        }
        arsort($votes);

        return array_slice(array_keys($votes), 0, 40);
    }

    /**
     * @param  list<int>  $one
     * @param  list<int>  $other
     */
    private static function at(array $one, array $other, int $offset): float
    {
        $from = max(0, $offset);
        $count = min(count($one), $offset + count($other)) - $from;
        // Less than three seconds in common are no proof.
        if ($count < 130) {
            return 1.0;
        }
        $bits = 0;
        for ($place = 0; $place < $count; $place++) {
            $bits += substr_count(decbin($one[$from + $place] ^ $other[$from + $place - $offset]), '1');
        }

        return $bits / (32 * $count);
    }

    /**
     * @return list<int>
     *
     * @throws BlockTooLarge
     * @throws LibraryMissing
     */
    private static function ofSamples(FloatBuffer $samples, int $count): array
    {
        $frames = $count < self::FRAME ? 0 : intdiv($count - self::FRAME, self::HOP) + 1;
        $lines = 2 * self::BANDS * self::LINES;
        $found = [];
        $before = null;
        for ($first = 0; $first < $frames; $first += self::AT_ONCE) {
            $part = min(self::AT_ONCE, $frames - $first);
            $spectra = new FloatBuffer($part * $lines);
            // Frames overlap, and the rows of a matrix may not: each sixteenth of the frames is a product of its own.
            foreach (self::waves() as $piece => $waves) {
                VectorMath::get()->multiply(new Rows($samples, ($first + $piece) * self::HOP, self::HOP, $part, self::HOP), $waves,
                    $spectra, 0, $lines, $piece > 0);
            }
            for ($frame = 0; $frame < $part; $frame++) {
                $bands = [];
                for ($band = 0; $band < self::BANDS; $band++) {
                    $bands[] = VectorMath::get()->energy($spectra, $frame * $lines + $band * 2 * self::LINES, 2 * self::LINES);
                }
                if ($before !== null) {
                    $found[] = self::bits($bands, $before);
                }
                $before = $bands;
            }
        }

        return $found;
    }

    /**
     * @param  list<float>  $bands
     * @param  list<float>  $before
     */
    private static function bits(array $bands, array $before): int
    {
        $bits = 0;
        for ($band = 0; $band < self::BANDS - 1; $band++) {
            $bits = $bits << 1 | ($bands[$band] - $bands[$band + 1] - ($before[$band] - $before[$band + 1]) > 0 ? 1 : 0);
        }

        return $bits;
    }

    /**
     * For each line of each band a cosine and a sine under a window of Hann, cut into pieces of a hop.
     *
     * @return list<FloatBuffer>
     *
     * @throws BlockTooLarge
     */
    private static function waves(): array
    {
        if (self::$waves !== []) {
            return self::$waves;
        }
        $bytes = array_fill(0, intdiv(self::FRAME, self::HOP), '');
        for ($band = 0; $band < self::BANDS; $band++) {
            for ($line = 0; $line < self::LINES; $line++) {
                $hertz = self::LOWEST * (self::HIGHEST / self::LOWEST) ** (($band + ($line + 0.5) / self::LINES) / self::BANDS);
                foreach ([0.0, M_PI_2] as $phase) {
                    $wave = [];
                    for ($index = 0; $index < self::FRAME; $index++) {
                        $wave[] = (0.5 - 0.5 * cos(2 * M_PI * $index / self::FRAME))
                            * cos(2 * M_PI * $hertz * $index / self::RATE - $phase);
                    }
                    foreach (array_chunk($wave, self::HOP) as $piece => $part) {
                        $bytes[$piece] .= pack('f*', ...$part);
                    }
                }
            }
        }

        return self::$waves = array_values(array_map(FloatBuffer::fromBytes(...), $bytes));
    }

    private static function mono(Layout $layout): Mix
    {
        return Mix::ofGains([array_values(array_fill(0, max(1, $layout->count()), 1 / max(1, $layout->count())))]);
    }
}
