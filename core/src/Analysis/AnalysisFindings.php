<?php

declare(strict_types=1);

namespace Octavox\Core\Analysis;

use Octavox\Core\Media\FindingKind;
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
    public static function of(Track $track, Measurements $measured): array
    {
        if ($measured->samples === 0) {
            return [];
        }
        if ($measured->level()->peak < self::SILENT) {
            return [Finding::of(FindingKind::Silent, Severity::Warn)->about($track->number)];
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
                return Finding::of(FindingKind::SilentSide, Severity::Warn, side: $side, good: $good)
                    ->about($track->number, ['layout' => $good.'-both']);
            }
        }
        if ($image->difference < self::SAME) {
            return Finding::of(FindingKind::IdenticalSides, Severity::Note)->about($track->number, ['layout' => 'left']);
        }
        if ($image->correlation < self::FLIPPED && abs($image->gap) < 6.0) {
            return Finding::of(FindingKind::Flipped, Severity::Warn)->about($track->number, ['layout' => '1,-2']);
        }
        $sure = $image->twoMicrophones();
        if ($sure < self::SURE) {
            return null;
        }

        return Finding::of(FindingKind::TwoMicrophones, Severity::Warn, sure: round($sure, 4), alike: round(abs($image->correlation), 4),
            gap: round($image->gap, 3), unsteady: round($image->unsteady, 3), timbre: round(max(abs($image->treble), abs($image->bass)), 3))
            ->about($track->number, ['layout' => 'split']);
    }

    private static function clipping(Track $track, Measurements $measured): ?Finding
    {
        if ($measured->clips === 0) {
            return null;
        }
        $places = array_map(fn (int $sample): string => sprintf('%d:%05.2f', intdiv($sample, 60 * $measured->rate),
            fmod($sample / $measured->rate, 60)), array_slice($measured->places, 0, self::MOST_PLACES));

        return Finding::of(FindingKind::Clipped, $measured->clips > 2 ? Severity::Warn : Severity::Note, times: $measured->clips,
            at: implode(', ', $places), later: $measured->clips > count($places) ? ' and later' : '')->about($track->number);
    }

    private static function quiet(Track $track, Measurements $measured): ?Finding
    {
        $lufs = $measured->loudness->integrated;
        if ($measured->level()->peak >= self::QUIET_PEAK || $lufs !== null && $lufs > self::QUIET_LUFS) {
            return null;
        }

        return Finding::of(FindingKind::LowLevel, Severity::Warn, ...array_filter(['peak' => $measured->level()->peakDecibels() ?? -99.0,
            'lufs' => $lufs], fn (?float $value): bool => $value !== null))->about($track->number, ['level' => 'peak:-1']);
    }
}
