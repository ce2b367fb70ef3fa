<?php

declare(strict_types=1);

namespace App\Orders\Pages;

use App\Files\FreeSpace;
use App\Files\Shelves;
use App\Orders\Models\Order;
use App\Orders\Planning\NameClashes;
use App\Orders\Planning\Place;
use App\Orders\Planning\PlannedResult;
use App\Orders\Planning\PlanOrder;
use App\Orders\Planning\SheetLine;
use App\Orders\Values\OrderState;
use App\Orders\Values\SpecForm;
use App\Orders\Values\SpecWords;
use App\Presets\Queries\Presets;
use App\Presets\Values\PresetKind;
use App\Results\Queries\MeasuredSpeed;
use Octavox\Core\Destination\DestinationInvalid;
use Octavox\Core\Failure;
use Octavox\Core\Order\RecipeInvalid;

/** Everything that the order sheet shows. */
final class OrderSheet
{
    private const MOST_DRAFTS = 20;

    public function __construct(private readonly PlanOrder $plans, private readonly MeasuredSpeed $speed, private readonly Presets $presets,
        private readonly Shelves $shelves, private readonly NameClashes $clashes, private readonly FreeSpace $space) {}

    /**
     * @throws Failure
     */
    public function build(Order $order, SheetView $view): Sheet
    {
        $lines = $this->clashes->on($this->plans->for($order), Place::of($order->place, $this->shelves)->isOwn());
        $planned = array_merge(...array_map(fn (SheetLine $line): array => $line->results, $lines));
        $form = SpecForm::of($order->asked());

        return new Sheet($order, $lines, $view->chosen($lines), new FieldChoices($form, $planned, $order->destination !== null),
            $this->totals($order, $lines, $planned), $view, $this->head($order),
            count($lines) === 1 ? self::opened($order, $lines, $lines[0]) : null);
    }

    /**
     * @param  list<SheetLine>  $lines  of the whole order
     * @param  bool  $hasFields  whether every field of the order can be set for this line
     */
    public static function opened(Order $order, array $lines, SheetLine $own, bool $hasFields = false): OpenLine
    {
        return new OpenLine($order, $own, new FieldChoices(SpecForm::of($own->line->changes()->over($order->asked())), $own->results,
            $order->destination !== null), count($lines), count(array_filter($lines, fn (SheetLine $one): bool => $one->line->marked)),
            $hasFields);
    }

    /**
     * @throws DestinationInvalid
     * @throws RecipeInvalid
     * @throws Failure
     */
    private function head(Order $order): SheetHead
    {
        $begun = $order->begunWith();

        return new SheetHead($this->presets->all(PresetKind::Destination), $this->presets->all(PresetKind::Recipe),
            Place::of($order->place, $this->shelves)->choices(),
            Order::query()->where('state', OrderState::Draft)->whereKeyNot($order->id)->withCount('lines')->latest('updated_at')
                ->limit(self::MOST_DRAFTS)->get(),
            $this->presets->destination($order->destination), $this->presets->recipe($order->recipe),
            $begun === null ? [] : SpecWords::say($order->asked()->since($begun)));
    }

    /**
     * @param  list<SheetLine>  $lines
     * @param  list<PlannedResult>  $planned
     */
    private function totals(Order $order, array $lines, array $planned): SheetTotals
    {
        $makable = array_filter($planned, fn (PlannedResult $one): bool => $one->plan !== null);
        $seconds = [];
        foreach ($makable as $one) {
            $container = (string) $one->plan?->target->container;
            $seconds[$container] = ($seconds[$container] ?? 0.0) + ($one->plan?->seconds() ?? 0.0);
        }
        $takes = 0.0;
        foreach ($seconds as $container => $length) {
            $speed = $this->speed->find((string) $container);
            $takes = $takes === null || $speed === null || $speed <= 0 ? null : $takes + $length / $speed;
        }
        $place = $makable === [] ? null : (reset($makable)->plan->target->folder ?? null);

        return new SheetTotals(count($makable), array_sum(array_map(fn (PlannedResult $one): int => $one->predictedBytes(), $makable)),
            array_sum($this->soundBytes($makable)), array_sum($seconds), $makable === [] ? null : $takes,
            $place === null ? null : $this->space->on($place),
            count(array_filter($lines, fn (SheetLine $one): bool => $one->isStopped())),
            count(array_filter($lines, fn (SheetLine $one): bool => $one->isRight())));
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
}
