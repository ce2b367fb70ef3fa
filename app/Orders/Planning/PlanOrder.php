<?php

declare(strict_types=1);

namespace App\Orders\Planning;

use App\Files\OutsideShelf;
use App\Files\Pictures;
use App\Files\Shelves;
use App\Orders\Models\Order;
use App\Orders\Models\OrderLine;
use App\Orders\Values\WayDrawing;
use App\Presets\Queries\Presets;
use App\Sources\Actions\AskForBorders;
use App\Sources\Models\Source;
use App\Sources\Queries\KnownFacts;
use App\Sources\Values\AnalysisFinding;
use Octavox\Core\Analysis\Measurements;
use Octavox\Core\Destination\Change;
use Octavox\Core\Destination\Destination;
use Octavox\Core\Destination\Facts;
use Octavox\Core\Destination\Fit;
use Octavox\Core\Destination\LeastChange;
use Octavox\Core\Destination\Rejection;
use Octavox\Core\Failure;
use Octavox\Core\Name\NamePattern;
use Octavox\Core\Order\IfRight;
use Octavox\Core\Order\OutputSpec;
use Octavox\Core\Plan\OrderLine as PlanLine;
use Octavox\Core\Plan\OrderPlanner;
use Octavox\Core\Plan\Plan;
use Octavox\Core\Plan\PlannedLine;
use Octavox\Core\Plan\SourceKnowledge;
use Octavox\Core\Plan\SourceLabel;
use Octavox\Core\Reading\Finding;
use Octavox\Core\Reading\Reading;
use Octavox\Core\Sound\InvalidLevel;

/** The very plans that will be carried out, from what is stored of the sources; this process opens none of them. */
final class PlanOrder
{
    /** The queue may find at once what is wanted; whoever still waits then is told so. */
    private const ROUNDS = 2;

    public function __construct(private readonly KnownFacts $known, private readonly Presets $presets, private readonly Shelves $shelves,
        private readonly AskForBorders $borders) {}

    /**
     * @return list<SheetLine> in the order of the lines
     *
     * @throws Failure
     */
    public function for(Order $order): array
    {
        $lines = array_values($order->lines()->with('source.tracks')->get()->all());
        $asked = $this->asked($order);
        $place = Place::of($order->place, $this->shelves);
        $destination = $this->presets->destination($order->destination);
        $obstacles = $specs = [];
        foreach ($lines as $line) {
            if ($order->destination !== null && $destination === null) {
                $obstacles[$line->id] = 'The destination that this order goes to was deleted; choose above where it goes.';

                continue;
            }
            try {
                $spec = $line->changes()->over($asked);
                // A picture is one that was brought in, or none; a spec of somebody else's may name any file of this machine.
                $cover = $spec->cover === '' || Pictures::name((string) $spec->cover) !== null ? $spec->cover : null;
                $cover ??= $line->source->noted()?->cover();
                $specs[$line->id] = $spec->withPlace($place->folder($order, $line->source))->withCover($cover);
            } catch (OutsideShelf $gone) {
                $obstacles[$line->id] = $gone->getMessage();
            }
        }
        $memory = SheetMemory::of($order);
        $common = json_encode([$asked->toArray(), $destination?->toArray()], JSON_THROW_ON_ERROR | JSON_INVALID_UTF8_SUBSTITUTE);
        $keys = $remembered = $facts = [];
        foreach ($lines as $number => $line) {
            $keys[$line->id] = isset($specs[$line->id]) ? SheetMemory::key($line, $specs[$line->id], $common, $number + 1) : null;
            $remembered[$line->id] = $memory->recall($line->id, $keys[$line->id]);
            $facts[$line->id] = $remembered[$line->id]->facts ?? $line->source->facts();
        }
        $found = $this->planned($lines, array_filter($facts), $specs, array_filter($remembered), $destination, $obstacles);
        $all = [];
        foreach ($lines as $line) {
            $id = $line->id;
            [$own, $known] = [$facts[$id], $remembered[$id]];
            $planned = $found->lines[$id] ?? null;
            [$plans, $drafts] = [$planned->plans ?? [], $planned->drafts ?? []];
            // What is called otherwise because of other lines is looked at each time.
            $isOwn = $plans == $drafts;
            $refused = match (true) {
                $destination === null || $own === null => [],
                $isOwn && $known?->refused !== null => $known->refused,
                default => self::refused($destination, $plans, $own,
                    $found->knowledge[$id]->analyses ?? $this->known->gather($line->source, [])->analyses),
            };
            $all[] = $this->line($line, $own, $specs[$id] ?? $asked, $planned, $obstacles[$id] ?? null,
                $found->fits[$id] ?? null)->lying($place->note($line->source))->refused($refused);
            $isSettled = $planned === null ? isset($found->fits[$id]) : $planned->refusal === null && ! $planned->isWaiting();
            if ($known === null && $keys[$id] !== null && $own !== null && $isSettled) {
                $memory->keep($id, new RememberedLine($keys[$id], $own, $drafts, $found->fits[$id] ?? null, $isOwn ? $refused : null));
            }
        }
        $memory->save();

        return $all;
    }

    /**
     * @param  list<OrderLine>  $lines
     * @param  array<int, Reading>  $facts  by line
     * @param  array<int, OutputSpec>  $specs  by line
     * @param  array<int, RememberedLine>  $remembered  by line
     * @param  array<int, ?string>  $obstacles  by line; what is found to stand in the way is added
     *
     * @throws Failure
     */
    private function planned(array $lines, array $facts, array $specs, array $remembered, ?Destination $destination,
        array &$obstacles): PlannedOrder
    {
        $fresh = array_values(array_filter($lines, fn (OrderLine $line): bool => ! isset($remembered[$line->id])));
        $found = $fits = $knowledge = $silences = [];
        for ($round = 0; $round < self::ROUNDS; $round++) {
            $knowledge = $this->knowledge($fresh, $specs, $silences);
            $fits = array_filter(array_map(fn (RememberedLine $one): ?Fit => $one->fit, $remembered))
                + ($destination === null ? [] : $this->fits($destination, array_intersect_key($facts, $specs), $specs, $fresh, $knowledge));
            $found = OrderPlanner::plan($this->plannable($lines, $facts, $specs, $fits, $knowledge, $remembered), new OutputSpec);
            $waiting = array_filter($found, fn (PlannedLine $one): bool => $one->wanted->borders !== [] || $one->wanted->silences !== []);
            foreach ($fresh as $line) {
                if (isset($waiting[$line->id]) && ! isset($obstacles[$line->id])) {
                    $obstacles[$line->id] = $this->borders->ask($line->source, $waiting[$line->id]->wanted);
                    $silences[$line->id] = $this->known->silences($line->source,
                        $waiting[$line->id]->wanted) + ($silences[$line->id] ?? []);
                }
            }
            if ($waiting === []) {
                break;
            }
        }

        return new PlannedOrder($found, $fits, $knowledge);
    }

    /** What is asked of all lines, on this day and for this order. */
    private function asked(Order $order): OutputSpec
    {
        $spec = $order->asked();
        $named = $spec->name === null ? null : NamePattern::dated($spec->name, now()->format('Y-m-d'), $order->title);
        // Where a destination decides, nobody else has to name a format.
        $spec = $order->destination === null && $spec->container === null ? $spec->withContainer('wav') : $spec;

        return $spec->withName($named);
    }

    /**
     * @param  list<OrderLine>  $lines
     * @param  array<int, OutputSpec>  $specs
     * @param  array<int, array<string, string>>  $silences
     * @return array<int, SourceKnowledge> by line
     */
    private function knowledge(array $lines, array $specs, array $silences): array
    {
        $cut = array_filter($lines, fn (OrderLine $line): bool => isset($specs[$line->id]) && array_filter($specs[$line->id]->sounds,
            fn ($sound): bool => ! in_array($sound->pieces, [null, ''], true)) !== []);
        $borders = $this->known->borders(array_values(array_map(fn (OrderLine $line): int => $line->source_id, $cut)));
        $known = [];
        foreach ($lines as $line) {
            $cover = $specs[$line->id]->cover ?? '';
            $known[$line->id] = $this->known->gather($line->source, $borders[$line->source_id] ?? [], $silences[$line->id] ?? [])
                ->withCover(is_file($cover) ? (int) filesize($cover) : 0);
        }

        return $known;
    }

    /**
     * @param  array<int, Reading>  $facts
     * @param  array<int, OutputSpec>  $specs
     * @param  list<OrderLine>  $lines
     * @param  array<int, SourceKnowledge>  $knowledge
     * @return array<int, Fit> by line
     *
     * @throws InvalidLevel
     */
    private function fits(Destination $destination, array $facts, array $specs, array $lines, array $knowledge): array
    {
        $fits = [];
        foreach ($lines as $line) {
            $reading = $facts[$line->id] ?? null;
            if ($reading !== null) {
                $first = ($reading->sound()[0] ?? null)?->number;
                $measured = $knowledge[$line->id]->analyses[$first] ?? null;
                $fits[$line->id] = (new LeastChange($destination, $measured, $specs[$line->id]))
                    ->fitLine(new PlanLine($reading, new OutputSpec, $knowledge[$line->id], self::label($line->source)));
            }
        }

        return $fits;
    }

    /**
     * @param  list<OrderLine>  $lines
     * @param  array<int, Reading>  $facts
     * @param  array<int, OutputSpec>  $specs
     * @param  array<int, Fit>  $fits
     * @param  array<int, SourceKnowledge>  $knowledge
     * @param  array<int, RememberedLine>  $remembered
     * @return array<int, PlanLine>
     */
    private function plannable(array $lines, array $facts, array $specs, array $fits, array $knowledge, array $remembered): array
    {
        $plannable = [];
        foreach ($lines as $number => $line) {
            $fit = $fits[$line->id] ?? null;
            $isLeft = $fit?->isAccepted() === true && $specs[$line->id]->ifRight !== IfRight::Copy;
            if (! isset($facts[$line->id], $specs[$line->id]) || $isLeft || $fit !== null && $fit->spec === null) {
                continue;
            }
            // A name that had to be another one counts more than the one that was asked for.
            $spec = $fit?->spec === null ? $specs[$line->id]
                : $specs[$line->id]->withName($fit->spec->name ?? $specs[$line->id]->name)->over($fit->spec);
            $plannable[$line->id] = new PlanLine($facts[$line->id], $spec, $knowledge[$line->id] ?? new SourceKnowledge,
                self::label($line->source), $remembered[$line->id]->plans ?? null, $number + 1);
        }

        return $plannable;
    }

    private static function label(Source $source): SourceLabel
    {
        return new SourceLabel($source->given_name !== '' ? self::named($source)
            : ($source->isOurs() || $source->discTitle() !== null ? $source->name : null),
            $source->folder);
    }

    /** What it was given as a name, ending as its file does, so that the end can be taken off. */
    private static function named(Source $source): string
    {
        $extension = pathinfo($source->name, PATHINFO_EXTENSION);

        return $extension === '' || str_ends_with(strtolower($source->given_name), '.'.strtolower($extension)) ? $source->given_name
            : $source->given_name.'.'.$extension;
    }

    private function line(OrderLine $line, ?Reading $facts, OutputSpec $spec, ?PlannedLine $planned, ?string $obstacle,
        ?Fit $fit): SheetLine
    {
        $source = $line->source;
        $layout = ($facts?->sound()[0] ?? null)?->sound?->layout;
        $one = match (true) {
            $facts === null => $source->isReady() || $source->error_says !== null ? PlannedResult::refused($source, $this->unread($source))
                : PlannedResult::waiting($source, $this->unread($source), null),
            $obstacle !== null => PlannedResult::refused($source, $obstacle, $layout),
            $planned === null && $fit?->change === Change::None => PlannedResult::right($source,
                'It is accepted as it is, so it stays where it is.', $layout),
            $planned === null => PlannedResult::refused($source, $fit?->why() ?? '', $layout),
            $planned->refusal !== null => PlannedResult::refused($source, $planned->refusal->getMessage(), $layout),
            $planned->wanted->analyses !== [] => PlannedResult::waiting($source,
                'One gain for all needs all sources analysed; that is still going on, and the plan appears in a moment.', $layout),
            $planned->isWaiting() => PlannedResult::waiting($source,
                'The packets around its marks are being looked at; the plan appears in a moment.', $layout),
            $planned->plans === [] => PlannedResult::right($source, 'It is already what was asked for, so nothing is made of it.', $layout),
            default => null,
        };
        if ($one !== null) {
            return new SheetLine($line, $source, $spec, [$one], $planned?->refusal, $fit,
                read: self::mendable($facts));
        }
        $results = array_map(fn (Plan $plan): PlannedResult => PlannedResult::planned($source, $plan, $facts,
            self::bytes($facts, $plan), WayDrawing::arriving($facts, $plan)), $planned->plans);

        return new SheetLine($line, $source, $spec, $results, null, $fit, read: self::mendable($facts));
    }

    /** @return list<AnalysisFinding> of what was found when it was read, what an order can mend */
    private static function mendable(?Reading $facts): array
    {
        return array_values(array_map(fn (Finding $one): AnalysisFinding => AnalysisFinding::fromArray($one->toArray()),
            array_filter($facts->findings ?? [], fn (Finding $one): bool => $one->shaping !== [])));
    }

    /**
     * @param  list<Plan>  $plans
     * @param  array<int, Measurements>  $measured
     * @return list<Rejection> for what the destination would refuse them
     */
    private static function refused(Destination $destination, array $plans, Reading $facts, array $measured): array
    {
        $refused = [];
        foreach ($plans as $plan) {
            array_push($refused, ...$destination->refuses(Facts::ofPlan($plan, $facts, $measured[$plan->sound()?->track] ?? null)));
        }

        return $refused;
    }

    private function unread(Source $source): string
    {
        return $source->error_says
            ?? ($source->isReady() ? 'What was read of it can no longer be understood; take it off the list and bring it in again.'
            : 'It is still being read; the plan appears in a moment.');
    }

    /** Bytes of what goes in: of a video all of it. */
    private static function bytes(Reading $facts, Plan $plan): int
    {
        $tracks = $plan->sound()?->tracks() ?? [];

        return $plan->picture === null
            ? array_sum(array_map(fn (int $number): int => $facts->track($number)->codedBytes ?? 0, $tracks)) : $facts->bytes;
    }
}
