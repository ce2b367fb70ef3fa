<?php

declare(strict_types=1);

namespace Octavox\Core\Analysis;

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
            return [new Finding('silent', Severity::Warn, sprintf('Sound track %d is silent from begin to end.', $track->number),
                'Check whether the microphone was on; another track or another recording may have the sound.', track: $track->number)];
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
                return new Finding('silent-side', Severity::Warn,
                    sprintf('The %s side of track %d is silent; all of its sound is on the %s.', $side, $track->number, $good),
                    sprintf('Put the %s side on both.', $good), ['layout' => $good.'-both'], $track->number);
            }
        }
        if ($image->difference < self::SAME) {
            return new Finding('identical-sides', Severity::Note,
                sprintf('Both sides of track %d are the same: it is mono that takes the room of stereo.', $track->number),
                'Make it mono; nothing is lost.', ['layout' => 'left'], $track->number);
        }
        if ($image->correlation < self::FLIPPED && abs($image->gap) < 6.0) {
            return new Finding('flipped', Severity::Warn,
                sprintf('One side of track %d is flipped in polarity: on one speaker or in mono, the sound nearly vanishes.',
                    $track->number), 'Flip the right side back.', ['layout' => '1,-2'], $track->number);
        }
        $sure = $image->twoMicrophones();
        if ($sure < self::SURE) {
            return null;
        }

        return new Finding('two-microphones', Severity::Warn,
            sprintf('Left and right of track %d are %s two microphones and no stereo image (%d %% sure): %s.', $track->number,
                $sure > 0.85 ? 'almost certainly' : 'probably', (int) round(100 * $sure), self::reasons($image)),
            'Split them into two mono files.', ['layout' => 'split'], $track->number);
    }

    private static function reasons(StereoImage $image): string
    {
        $reasons = [sprintf('their waves are hardly alike (%.2f)', abs($image->correlation))];
        if (abs($image->gap) > 2.0) {
            $reasons[] = sprintf('the %s is %.0f dB louder', $image->gap > 0 ? 'left' : 'right', abs($image->gap));
        }
        if ($image->unsteady > 4.0) {
            $reasons[] = 'now one leads, now the other';
        }
        if (max(abs($image->treble), abs($image->bass)) > 3.0) {
            $reasons[] = 'they sound different';
        }

        return implode(', ', $reasons);
    }

    private static function clipping(Track $track, Measurements $measured): ?Finding
    {
        if ($measured->clips === 0) {
            return null;
        }
        $places = array_map(fn (int $sample): string => sprintf('%d:%05.2f', intdiv($sample, 60 * $measured->rate),
            fmod($sample / $measured->rate, 60)), array_slice($measured->places, 0, self::MOST_PLACES));

        return new Finding('clipped', $measured->clips > 2 ? Severity::Warn : Severity::Note,
            sprintf('Track %d clips %s: at %s%s.', $track->number, $measured->clips === 1 ? 'once'
            : number_format($measured->clips).' times', implode(', ', $places), $measured->clips > count($places) ? ' and later' : ''),
            'What is cut off cannot be brought back; use another recording of that moment if there is one.', track: $track->number);
    }

    private static function quiet(Track $track, Measurements $measured): ?Finding
    {
        $lufs = $measured->loudness->integrated;
        if ($measured->level()->peak >= self::QUIET_PEAK || $lufs !== null && $lufs > self::QUIET_LUFS) {
            return null;
        }

        return new Finding('low-level', Severity::Warn,
            sprintf('Track %d is very low: its peak is %.1f dBFS%s.', $track->number, $measured->level()->peakDecibels() ?? -99,
                $lufs === null ? '' : sprintf(', its loudness %.0f LUFS', $lufs)), 'Raise it until its peak is at −1 dBFS.',
            ['level' => 'peak:-1'], $track->number);
    }
}
