<?php

declare(strict_types=1);

namespace App\Queries;

use App\Models\Source;
use App\Values\OrderForm;
use App\Values\PlannedDelivery;
use App\Values\WayDrawing;
use Octavox\Core\Failure;
use Octavox\Core\Make\Workplace;
use Octavox\Core\Plan\Planner;

/** The very plans that will be carried out, from what was read of the sources; nothing is opened for it. */
final class PlanOrder
{
    /** @return list<PlannedDelivery> in the order of the form */
    public function for(OrderForm $form, string $folder): array
    {
        $sources = Source::query()->findMany($form->sources)->keyBy('id');
        $wish = $form->wish($folder);
        $taken = [];
        $planned = [];
        foreach ($form->sources as $id) {
            $source = $sources->get($id);
            if (! $source instanceof Source) {
                continue;
            }
            $facts = $source->facts();
            if ($facts === null) {
                $planned[] = PlannedDelivery::refused($source, $source->error_says ?? 'It is still being read; the plan appears in a moment.');

                continue;
            }
            try {
                $plan = Planner::plan($facts, $wish);
                for ($number = 1; isset($taken[mb_strtolower(Workplace::numbered($plan->name, $number))]); $number++);
                $plan = $plan->named(Workplace::numbered($plan->name, $number));
                $taken[mb_strtolower($plan->name)] = true;
                $track = $facts->track($plan->track);
                $layout = $track->sound->layout ?? $plan->form->layout;
                $planned[] = PlannedDelivery::planned($source, $plan, WayDrawing::of($layout, $plan), $track === null ? 0 : $track->codedBytes);
            } catch (Failure $failure) {
                $planned[] = PlannedDelivery::refused($source, $failure->getMessage());
            }
        }

        return $planned;
    }
}
