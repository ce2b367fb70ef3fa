<?php

declare(strict_types=1);

namespace Octavox\Core\Analysis;

use Octavox\Core\Sound\Level;
use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Sound\Native\LibraryMissing;
use Octavox\Core\Sound\Native\VectorMath;
use Octavox\Core\Sound\PlanarMeter;

/** Peak and mean level of each channel, and where it clips: at least three samples in a row at one and the same level near full scale. */
final class ChannelMeter implements PlanarMeter
{
    private const STRETCH = 256;

    /** Of full scale; a converter or an encoder that clips ends a little below it as well. */
    private const NEAR_FULL = 0.98;

    private const IN_A_ROW = 3;

    private const SAME = 1.0 / 16384;

    private const MOST_PLACES = 200;

    /** @var array<int, float> */
    private array $peaks = [];

    /** @var array<int, float> */
    private array $energies = [];

    private int $frames = 0;

    private int $clips = 0;

    /** @var list<int> */
    private array $places = [];

    /** @param  int  $begins  the frame of the whole sound at which this meter begins */
    public function __construct(private readonly int $begins = 0) {}

    /** Takes in what another meter has measured of the same sound from where this one ended. */
    public function join(self $later): void
    {
        foreach ($later->peaks as $channel => $peak) {
            $this->peaks[$channel] = max($this->peaks[$channel] ?? 0.0, $peak);
            $this->energies[$channel] = ($this->energies[$channel] ?? 0.0) + $later->energies[$channel];
        }
        $this->frames += $later->frames;
        $this->clips += $later->clips;
        $this->places = array_slice([...$this->places, ...$later->places], 0, self::MOST_PLACES);
    }

    /** @throws LibraryMissing */
    public function take(array $channels, int $frames): void
    {
        foreach ($channels as $channel => $buffer) {
            $this->peaks[$channel] = max($this->peaks[$channel] ?? 0.0, $peak = VectorMath::get()->peak($buffer, 0, $frames));
            $this->energies[$channel] = ($this->energies[$channel] ?? 0.0) + VectorMath::get()->energy($buffer, 0, $frames);
            for ($from = 0; $peak >= self::NEAR_FULL && $from < $frames; $from += self::STRETCH) {
                $count = min(self::STRETCH, $frames - $from);
                if (VectorMath::get()->peak($buffer, $from, $count) >= self::NEAR_FULL) {
                    $this->look($buffer, $from, $count);
                }
            }
        }
        $this->frames += $frames;
    }

    /** @return list<Level> of each channel */
    public function levels(): array
    {
        return array_map(fn (float $peak, float $energy): Level => new Level($peak, sqrt($energy / max(1, $this->frames))),
            array_values($this->peaks), array_values($this->energies));
    }

    /** How often it clips. */
    public function clips(): int
    {
        return $this->clips;
    }

    /** @return list<int> samples at which it clips, the first of them */
    public function places(): array
    {
        $places = $this->places;
        sort($places);

        return $places;
    }

    private function look(FloatBuffer $buffer, int $from, int $count): void
    {
        $run = 0;
        $before = 0.0;
        foreach (array_values(unpack('f*', $buffer->bytes($from, $count)) ?: []) as $index => $sample) {
            $sample = (float) $sample;
            $run = abs($sample) >= self::NEAR_FULL && abs($sample - $before) < self::SAME ? $run + 1
                : (abs($sample) >= self::NEAR_FULL ? 1 : 0);
            $before = $sample;
            if ($run === self::IN_A_ROW) {
                $this->clips++;
                if (count($this->places) < self::MOST_PLACES) {
                    $this->places[] = $this->begins + $this->frames + $from + $index - self::IN_A_ROW + 1;
                }
            }
        }
    }
}
