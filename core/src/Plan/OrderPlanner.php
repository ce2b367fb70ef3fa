<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

use Octavox\Core\Analysis\GroupGain;
use Octavox\Core\Analysis\Measurements;
use Octavox\Core\Container\Video\VideoOutputs;
use Octavox\Core\Failure;
use Octavox\Core\InternalFault;
use Octavox\Core\Media\Track;
use Octavox\Core\Order\OutputSpec;
use Octavox\Core\Order\PictureChoice;
use Octavox\Core\Order\SoundSpec;
use Octavox\Core\Order\TrackSelection;
use Octavox\Core\Sound\InvalidLevel;
use Octavox\Core\Sound\LevelTarget;

/**
 * Lines + spec → what comes of each: which tracks, with which names and places, which of two results of one name is numbered, and the one
 * gain of a group are decided here and nowhere else. It opens nothing and calls no library.
 */
final class OrderPlanner
{
    /**
     * @param  array<array-key, OrderLine>  $lines
     * @param  OutputSpec  $spec  of all lines; the changes of each lie over it
     * @return array<array-key, PlannedLine> by the keys of the lines
     *
     * @throws InvalidLevel
     */
    public static function plan(array $lines, OutputSpec $spec): array
    {
        $specs = array_map(fn (OrderLine $line): OutputSpec => $line->changes->over($spec), $lines);
        $missing = [];
        $gain = self::groupGain($lines, $specs, $missing);
        $names = new NameAllocator;
        $planned = [];
        $number = 0;
        foreach ($lines as $key => $line) {
            $planned[$key] = isset($missing[$key]) ? PlannedLine::waiting($missing[$key])
                : self::line($line, self::grouped($specs[$key], $gain), $names, $line->number ?? ++$number);
        }

        return $planned;
    }

    private static function line(OrderLine $line, OutputSpec $spec, NameAllocator $names, int $number): PlannedLine
    {
        $wanted = new MissingFacts;
        try {
            $plans = $line->planned ?? Planner::plans($line, $spec, $wanted, $number);

            return $wanted->isEmpty() ? PlannedLine::planned($plans, array_map($names->allocate(...), $plans))
                : PlannedLine::waiting($wanted);
        } catch (Failure $failure) {
            // What is not known yet may be what it takes.
            return $wanted->isEmpty() ? PlannedLine::refused($failure) : PlannedLine::waiting($wanted);
        } catch (\Throwable $bug) {
            return PlannedLine::refused(InternalFault::of($bug, $line->source->path));
        }
    }

    /**
     * The one gain for all sounds that are to keep their balance; null where none is asked for, or where not all of them are analysed.
     *
     * @param  array<array-key, OrderLine>  $lines
     * @param  array<array-key, OutputSpec>  $specs
     * @param  array<array-key, MissingFacts>  $missing  of each line whose sounds are to be analysed first; of all of the group while any
     * is
     *
     * @throws InvalidLevel
     */
    private static function groupGain(array $lines, array $specs, array &$missing): ?LevelTarget
    {
        $target = null;
        $sounds = $members = [];
        $isComplete = true;
        foreach ($lines as $key => $line) {
            foreach ($specs[$key]->sounds() as $sound) {
                $own = self::groupTarget($sound);
                if ($own === null) {
                    continue;
                }
                $target ??= $own;
                $members[$key] ??= new MissingFacts;
                foreach (self::tracks($line, $specs[$key], $sound) as $track) {
                    $measured = $line->knowledge->analyses[$track] ?? null;
                    $isComplete = $isComplete && $measured instanceof Measurements;
                    $members[$key]->analyses[$track] = $track;
                    $sounds[] = $measured;
                }
            }
        }
        if ($target !== null && ! $isComplete) {
            $missing = array_filter($members, fn (MissingFacts $wanted): bool => ! $wanted->isEmpty());

            return null;
        }

        return $target === null ? null : GroupGain::compute($target, array_values(array_filter($sounds)));
    }

    private static function groupTarget(SoundSpec $sound): ?LevelTarget
    {
        try {
            return $sound->together === true && ! in_array($sound->level, [null, ''], true) ? LevelTarget::parse($sound->level) : null;
        } catch (InvalidLevel) {
            // It is told when the line is planned.
            return null;
        }
    }

    /** @return list<int> numbers of the tracks whose level counts */
    private static function tracks(OrderLine $line, OutputSpec $spec, SoundSpec $sound): array
    {
        $tracks = $line->source->sound();
        $isVideo = $spec->picture !== PictureChoice::Leave && VideoOutputs::named((string) $spec->container) !== null;
        $chosen = array_merge(...TrackSelection::parse($sound->tracks)->select($tracks));
        $numbers = array_map(fn (Track $track): int => $track->number, $tracks);

        return $chosen === [] ? array_slice($numbers, 0, $isVideo ? null : 1) : array_values(array_intersect($chosen, $numbers));
    }

    private static function grouped(OutputSpec $spec, ?LevelTarget $gain): OutputSpec
    {
        return $gain === null ? $spec : $spec->withSounds(array_map(
            fn (SoundSpec $sound): SoundSpec => self::groupTarget($sound) === null ? $sound
                : $sound->withLevel((string) $gain), $spec->sounds(),
        ));
    }
}
