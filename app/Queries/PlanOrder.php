<?php

declare(strict_types=1);

namespace App\Queries;

use App\Models\Source;
use App\Values\OrderForm;
use App\Values\PlannedResult;
use App\Values\WayDrawing;
use Illuminate\Support\Collection;
use Octavox\Core\Analysis\GroupGain;
use Octavox\Core\Analysis\LosslessSize;
use Octavox\Core\Failure;
use Octavox\Core\InternalFault;
use Octavox\Core\Make\Workplace;
use Octavox\Core\Media\Track;
use Octavox\Core\Plan\CutFinder;
use Octavox\Core\Plan\FilmPlanner;
use Octavox\Core\Plan\Plan;
use Octavox\Core\Plan\Planner;
use Octavox\Core\Plan\TrackChoice;
use Octavox\Core\Reading\Reading;
use Octavox\Core\Sound\LevelTarget;

/** The very plans that will be carried out, from what was read of the sources; this process opens none of them. */
final class PlanOrder
{
    public function __construct(private readonly CutFinder $cuts)
    {
    }

    /** @return list<PlannedResult> in the order of the form */
    public function for(OrderForm $form, string $folder): array
    {
        $sources = Source::query()->with('tracks')->findMany($form->sources)->keyBy('id');
        $together = $this->together($form, $sources);
        $taken = [];
        $planned = [];
        foreach ($form->sources as $id) {
            $source = $sources->get($id);
            if (! $source instanceof Source) {
                continue;
            }
            $facts = $source->facts();
            if ($facts === null) {
                $planned[] = PlannedResult::refused($source, $source->error_says ?? ($source->isReady() ? 'What was read of it is not understood any more; take it off the list and bring it in again.' : 'It is still being read; the plan appears in a moment.'));

                continue;
            }
            if ($form->together && $together === null && $form->level !== '') {
                $planned[] = PlannedResult::refused($source, 'One gain for all needs all sources listened to; that is still going on, and the plan appears in a moment.', ($facts->sound()[0] ?? null)?->sound?->layout);

                continue;
            }
            try {
                foreach ($this->plans($form, $facts, $folder, $id, $together) as $plan) {
                    for ($number = 1; isset($taken[mb_strtolower(Workplace::numbered($plan->name, $number))]); $number++);
                    $plan = self::foretold($source, $plan->named(Workplace::numbered($plan->name, $number)));
                    $taken[mb_strtolower($plan->name)] = true;
                    $bytes = $plan->picture === null ? array_sum(array_map(fn (int $number): int => $facts->track($number)->codedBytes ?? 0, [$plan->track, ...$plan->shape->joined])) : $facts->bytes;
                    $planned[] = PlannedResult::planned($source, $plan, WayDrawing::of($facts, $plan), $bytes, WayDrawing::arriving($facts, $plan));
                }
            } catch (Failure $failure) {
                $planned[] = PlannedResult::refused($source, $failure->getMessage(), ($facts->sound()[0] ?? null)?->sound?->layout);
            } catch (\Throwable $bug) {
                report($bug);
                $planned[] = PlannedResult::refused($source, InternalFault::of($bug)->getMessage(), ($facts->sound()[0] ?? null)?->sound?->layout);
            }
        }

        return $planned;
    }

    /** Compressed without loss, sound takes what a few stretches of it took when it was listened to. */
    private static function foretold(Source $source, Plan $plan): Plan
    {
        return LosslessSize::concerns($plan) ? LosslessSize::foretell($plan, $source->tracks->firstWhere('number', $plan->track)?->measured()?->packed) : $plan;
    }

    /**
     * The one gain for all; null where none is wished, or where not all have been listened to.
     *
     * @param  Collection<array-key, Source>  $sources
     */
    private function together(OrderForm $form, Collection $sources): ?LevelTarget
    {
        $target = $form->together ? $form->levelTarget() : null;
        if ($target === null) {
            return null;
        }
        $heard = [];
        foreach ($sources as $source) {
            $facts = $source->facts();
            try {
                $named = $facts === null ? [] : $this->tracks($form->track, $facts);
            } catch (Failure) {
                // Told when this source is planned.
                continue;
            }
            $numbers = $facts === null ? [] : ($named ?? array_slice(array_map(fn (Track $track): int => $track->number, $facts->sound()), 0, $form->track === 'all' || $form->film() !== null ? null : 1));
            foreach ($numbers as $number) {
                $measured = $source->tracks->firstWhere('number', $number)?->measured();
                if ($measured === null) {
                    return null;
                }
                $heard[] = $measured;
            }
        }

        return GroupGain::of($target, $heard);
    }

    /**
     * @return list<Plan> one for each file
     *
     * @throws Failure
     */
    private function plans(OrderForm $form, Reading $facts, string $folder, int $source, ?LevelTarget $together): array
    {
        $tracks = $this->tracks($form->track, $facts);
        $film = $form->film();
        if ($film !== null) {
            return [FilmPlanner::plan($facts, $form->filmWish($film, $folder, $tracks, $source, $together))];
        }
        $all = array_map(fn (Track $track): int => $track->number, $facts->sound());
        if ($form->track === 'joined' && $all !== [] && count($all) > 1) {
            return Planner::plans($facts, $form->wish($folder, null, $source, $together)->ofJoined($all), $this->cuts);
        }
        $numbers = $tracks ?? ($form->track === 'all' ? $all : [null]);
        $plans = array_merge(...array_map(fn (?int $track): array => Planner::plans($facts, $form->wish($folder, $track, $source, $together), $this->cuts), $numbers));

        // Several tracks of one source are told apart by their numbers, unless the pattern does that.
        return count($numbers) < 2 || str_contains($form->pattern, '{track}') ? $plans : array_map(fn (Plan $plan): Plan => $plan->named(pathinfo($plan->name, PATHINFO_FILENAME).' '.$plan->track.'.'.pathinfo($plan->name, PATHINFO_EXTENSION)), $plans);
    }

    /**
     * @return ?list<int> numbers of the tracks that are meant; null where none is named
     *
     * @throws Failure
     */
    private function tracks(string $track, Reading $facts): ?array
    {
        if (in_array($track, ['', 'all', 'joined'], true) || $facts->sound() === []) {
            return null;
        }

        return TrackChoice::of($facts, $track);
    }
}
