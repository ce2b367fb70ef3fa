<?php

declare(strict_types=1);

namespace App\Results\Actions;

use App\Orders\Models\Order;
use App\Results\Models\Result;
use App\Results\Queries\NextResult;
use App\Results\Values\ResultState;
use App\Settings\Actions\KeepSetting;
use App\Settings\Queries\Settings;
use App\Work\WorkKind;
use App\Work\WorkSignal;

/** Pauses making and has it go on: of one result, of an order, of everything. What is half made then begins anew. */
final class HoldWork
{
    public function __construct(private readonly NextResult $next, private readonly WorkSignal $signal,
        private readonly KeepSetting $keep) {}

    public function result(Result $result, bool $held): void
    {
        Result::query()->whereKey($result->id)->whereIn('state', [ResultState::Waiting, ResultState::Making])
            ->update(['held' => $held, 'waits_for' => null, 'updated_at' => now()]);
        $this->goOn();
        $result->refresh();
    }

    /** @param  ?string  $by  what held it, where it was nobody's wish */
    public function order(Order $order, bool $held, ?string $by = null): void
    {
        $order->update(['held' => $held, 'held_by' => $held ? $by : null]);
        $this->touch($order);
        $this->goOn();
    }

    public function everything(bool $held): void
    {
        $this->keep->set(Settings::MAKING_HELD, $held ? true : null);
        Result::query()->whereIn('state', [ResultState::Waiting, ResultState::Making])->update(['updated_at' => now()]);
        $this->goOn();
    }

    /** Before all others, or after them. */
    public function priority(Order $order, bool $first): void
    {
        $others = Order::query()->whereKeyNot($order->id);
        $order->update(['priority' => $first ? 1 + self::number($others->max('priority')) : self::number($others->min('priority')) - 1]);
        $this->touch($order);
    }

    /** Before all others of its order, or after them. */
    public function turn(Result $result, bool $first): void
    {
        $others = Result::query()->where('order_id', $result->order_id)->whereKeyNot($result->id);
        $result->update(['turn' => $first ? self::number($others->min('turn')) - 1 : 1 + self::number($others->max('turn'))]);
    }

    /** Whoever may be made gets somebody who looks for work; what nobody has to look for ends at once. */
    public function goOn(): void
    {
        if (! $this->next->isHeld()) {
            $this->signal->ensure(WorkKind::Making, $this->next->eligible()->count());
        }
    }

    private static function number(mixed $value): int
    {
        return is_numeric($value) ? (int) $value : 0;
    }

    private function touch(Order $order): void
    {
        Result::ofOrder($order)->whereIn('state', [ResultState::Waiting, ResultState::Making])->update(['results.updated_at' => now()]);
    }
}
