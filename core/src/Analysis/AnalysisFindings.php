<?php

declare(strict_types=1);

namespace Octavox\Core\Analysis;

use Octavox\Core\Media\Findings;
use Octavox\Core\Media\Severity;
use Octavox\Core\Media\Track;
use Octavox\Core\Reading\Finding;
use Octavox\Core\Sound\Level;

/** The rules that need to have listened, each with the shaping that sets right what it found. */
final class AnalysisFindings
{
    /** Below this nothing is heard: −70 dBFS. */
    private const SILENT = 0.00032;

    /** A side whose peak is this many times lower than the other's carries no sound of its own: 40 dB. */
    private const LOWER = 0.01;

    /** Both sides are the same where their difference has so little of the energy: −60 dB. */
    private const SAME = 1e-6;

    private const FLIPPED = -0.7;

    private const QUIET_LUFS = -40.0;

    private const QUIET_PEAK = 0.1;

    private const SURE = 0.5;

    private const MOST_PLACES = 3;

    /** @return list<Finding> */
    public static function find(Track $track, Measurements $measured): array
    {
        if ($measured->samples === 0) {
            return [];
        }
        if ($measured->level()->peak < self::SILENT) {
            return [new Finding(new Findings\Silent(track: $track->number), Severity::Warn)];
        }

        return array_values(array_filter([self::sides($track, $measured), self::clipping($track, $measured),
            self::quiet($track, $measured)]));
    }

    private static function sides(Track $track, Measurements $measured): ?Finding
    {
        $image = $measured->image;
        if ($image === null) {
            return null;
        }
        [$left, $right] = array_map(fn (Level $level): float => $level->peak, $measured->levels);
        foreach ([['left', $left, $right, 'right'], ['right', $right, $left, 'left']] as [$side, $own, $other, $good]) {
            if ($own < self::SILENT || $own < $other * self::LOWER) {
                return (new Finding(new Findings\SilentSide(track: $track->number, side: $side, good: $good), Severity::Warn))
                    ->mendedBy(['layout' => $good.'-both']);
            }
        }
        if ($image->difference < self::SAME) {
            return (new Finding(new Findings\IdenticalSides(track: $track->number), Severity::Note))->mendedBy(['layout' => 'left']);
        }
        if ($image->correlation < self::FLIPPED && abs($image->gap) < 6.0) {
            return (new Finding(new Findings\Flipped(track: $track->number), Severity::Warn))->mendedBy(['layout' => '1,-2']);
        }
        $sure = $image->twoMicrophones();
        if ($sure < self::SURE) {
            return null;
        }

        $pair = new Findings\TwoMicrophones($track->number, round($sure, 4), round(abs($image->correlation), 4), round($image->gap, 3),
            round($image->unsteady, 3), round(max(abs($image->treble), abs($image->bass)), 3));

        return (new Finding($pair, Severity::Warn))->mendedBy(['layout' => 'split']);
    }

    private static function clipping(Track $track, Measurements $measured): ?Finding
    {
        if ($measured->clips === 0) {
            return null;
        }
        $places = array_map(fn (int $sample): string => sprintf('%d:%05.2f', intdiv($sample, 60 * $measured->rate),
            fmod($sample / $measured->rate, 60)), array_slice($measured->places, 0, self::MOST_PLACES));

        $clipped = new Findings\Clipped($track->number, $measured->clips, implode(', ', $places),
            $measured->clips > count($places) ? ' and later' : '');

        return new Finding($clipped, $measured->clips > 2 ? Severity::Warn : Severity::Note);
    }

    private static function quiet(Track $track, Measurements $measured): ?Finding
    {
        $lufs = $measured->loudness->integrated;
        if ($measured->level()->peak >= self::QUIET_PEAK || $lufs !== null && $lufs > self::QUIET_LUFS) {
            return null;
        }

        return (new Finding(new Findings\LowLevel($track->number, $measured->level()->peakDecibels() ?? -99.0, $lufs), Severity::Warn))
            ->mendedBy(['level' => 'peak:-1']);
    }
}
