<?php

declare(strict_types=1);

namespace App\Queries;

use App\Values\Humanize;
use App\Values\OrderForm;
use App\Values\PlannedResult;
use App\Values\Sheet;

/** Everything that the order sheet shows. */
final class OrderSheet
{
    public function __construct(private readonly PlanOrder $plans, private readonly MeasuredSpeed $speed) {}

    public function of(OrderForm $form, int $from = 0): Sheet
    {
        $planned = $this->plans->for($form, config()->string('octavox.results').'/…');
        $makable = array_filter($planned, fn (PlannedResult $one): bool => $one->plan !== null);
        $seconds = array_sum(array_map(fn (PlannedResult $one): float => $one->plan?->seconds() ?? 0.0, $makable));
        $speed = $this->speed->of($form->format());

        return new Sheet(
            $form,
            $planned,
            count($makable),
            array_sum(array_map(fn (PlannedResult $one): int => $one->predictedBytes(), $makable)),
            array_sum($this->soundBytes($makable)),
            $seconds,
            $speed === null || $speed <= 0 ? null : $seconds / $speed,
            $this->tracks($planned, $form),
            $from,
        );
    }

    /**
     * What goes in, once, into however many files it goes.
     *
     * @param  array<array-key, PlannedResult>  $makable
     * @return array<string, int> bytes by source and track
     */
    private function soundBytes(array $makable): array
    {
        $bytes = [];
        foreach ($makable as $one) {
            $bytes[$one->source->id.'/'.($one->plan?->picture === null ? $one->plan?->sound()?->track : '')] = $one->soundBytes;
        }

        return $bytes;
    }

    /**
     * @param  list<PlannedResult>  $planned
     * @return array<array-key, string>
     */
    private function tracks(array $planned, OrderForm $form): array
    {
        $numbers = [];
        $languages = [];
        foreach ($planned as $one) {
            $sound = $one->source->facts()?->sound() ?? [];
            if (count($sound) < 2) {
                continue;
            }
            foreach ($sound as $track) {
                $numbers[(string) $track->number] = 'Track '.$track->number;
                if ($track->language !== null) {
                    $languages[$track->language] = 'In '.Humanize::language($track->language);
                }
            }
        }
        if ($numbers === []) {
            return [];
        }
        ksort($numbers, SORT_NUMERIC);

        $choices = ['' => $form->video() === null ? 'The first' : 'All'] + ($form->video() === null
            ? ['all' => 'All, a file each', 'joined' => 'All as one sound'] : []);

        // Numbers are kept as they are, so the lists are added, not joined.
        return $choices + $numbers + $languages;
    }
}
