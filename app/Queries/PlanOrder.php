<?php

declare(strict_types=1);

namespace App\Queries;

use App\Models\Source;
use App\Values\OrderForm;
use App\Values\PlannedResult;
use App\Values\WayDrawing;
use Octavox\Core\Order\OutputSpec;
use Octavox\Core\Plan\OrderLine;
use Octavox\Core\Plan\OrderPlanner;
use Octavox\Core\Plan\Plan;
use Octavox\Core\Plan\PlannedLine;
use Octavox\Core\Reading\Reading;

/** The very plans that will be carried out, from what is stored of the sources; this process opens none of them. */
final class PlanOrder
{
    /** The queue may find at once what is wanted; whoever still waits then is told so. */
    private const ROUNDS = 2;

    public function __construct(private readonly KnownFacts $known) {}

    /** @return list<PlannedResult> in the order of the form */
    public function for(OrderForm $form, string $folder): array
    {
        $sources = Source::query()->with('tracks')->findMany($form->sources)->keyBy('id');
        $ordered = array_values(array_filter(array_map(fn (int $id): ?Source => $sources->get($id), $form->sources)));
        $facts = [];
        foreach ($ordered as $source) {
            $facts[$source->id] = $source->facts();
        }
        [$lines, $obstacles] = $this->lines($form, $ordered, array_filter($facts), $folder);
        $planned = [];
        foreach ($ordered as $source) {
            $own = $facts[$source->id];
            $line = $lines[$source->id] ?? null;
            array_push($planned, ...($own === null || $line === null ? [PlannedResult::refused($source, $this->unread($source))]
                : $this->results($source, $own, $line, $obstacles[$source->id] ?? null)));
        }

        return $planned;
    }

    /**
     * @param  list<Source>  $sources
     * @param  array<int, Reading>  $facts
     * @return array{array<int, PlannedLine>, array<int, string>} by source: what comes of it, and why what is wanted cannot be found
     */
    private function lines(OrderForm $form, array $sources, array $facts, string $folder): array
    {
        $spec = $form->spec->over(new OutputSpec(place: $folder));
        $silences = $obstacles = $planned = [];
        for ($round = 0; $round < self::ROUNDS; $round++) {
            $borders = $this->known->borders(array_keys($form->pieces));
            $lines = [];
            foreach ($sources as $source) {
                if (isset($facts[$source->id])) {
                    $knowledge = $this->known->of($source, $borders[$source->id] ?? [], $silences[$source->id] ?? []);
                    $lines[$source->id] = new OrderLine($facts[$source->id], $form->changes($source->id), $knowledge);
                }
            }
            $planned = OrderPlanner::plan($lines, $spec);
            $waiting = array_filter($planned, fn (PlannedLine $line): bool => $line->wanted->borders !== []
                || $line->wanted->silences !== []);
            if ($waiting === []) {
                break;
            }
            foreach ($sources as $source) {
                if (isset($waiting[$source->id])) {
                    $obstacles[$source->id] = $this->known->ask($source, $waiting[$source->id]->wanted);
                    $silences[$source->id] = $this->known->silences($source,
                        $waiting[$source->id]->wanted) + ($silences[$source->id] ?? []);
                }
            }
        }

        return [$planned, array_filter($obstacles)];
    }

    private function unread(Source $source): string
    {
        return $source->error_says
            ?? ($source->isReady() ? 'What was read of it is not understood any more; take it off the list and bring it in again.'
            : 'It is still being read; the plan appears in a moment.');
    }

    /** @return list<PlannedResult> */
    private function results(Source $source, Reading $facts, PlannedLine $line, ?string $obstacle): array
    {
        $layout = ($facts->sound()[0] ?? null)?->sound?->layout;
        if ($line->plans !== []) {
            return array_map(fn (Plan $plan): PlannedResult => PlannedResult::planned($source, $plan, WayDrawing::of($facts, $plan),
                self::bytes($facts, $plan), WayDrawing::arriving($facts, $plan)), $line->plans);
        }

        return [match (true) {
            $line->refusal !== null => PlannedResult::refused($source, $line->refusal->getMessage(), $layout),
            $obstacle !== null => PlannedResult::refused($source, $obstacle, $layout),
            $line->wanted->analyses !== [] => PlannedResult::waiting($source,
                'One gain for all needs all sources analysed; that is still going on, and the plan appears in a moment.', $layout),
            $line->isWaiting() => PlannedResult::waiting($source,
                'The packets around its marks are being looked at; the plan appears in a moment.', $layout),
            default => PlannedResult::refused($source, 'It is already what was asked for, so nothing is made of it.', $layout),
        }];
    }

    /** Bytes of what goes in: of a video all of it. */
    private static function bytes(Reading $facts, Plan $plan): int
    {
        $tracks = $plan->sound()?->tracks() ?? [];

        return $plan->picture === null
            ? array_sum(array_map(fn (int $number): int => $facts->track($number)->codedBytes ?? 0, $tracks)) : $facts->bytes;
    }
}
