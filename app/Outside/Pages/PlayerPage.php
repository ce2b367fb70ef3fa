<?php

declare(strict_types=1);

namespace App\Outside\Pages;

use App\Orders\Models\Order;
use App\Orders\Values\OrderState;
use App\Outside\Players\Player;
use App\Outside\Players\Players;
use App\Results\Models\Result;
use App\Results\Values\ResultState;

/** The players that are plugged in, and what is going on with them. */
final class PlayerPage
{
    public function __construct(private readonly Players $players) {}

    /** @return list<PluggedPlayer> */
    public function all(): array
    {
        return array_map(function (Player $player): PluggedPlayer {
            $orders = Order::query()->where('state', OrderState::Placed)->where('place', 'shelf:'.$player->shelfName())->select('id');
            $results = fn (ResultState ...$states): int => Result::query()->whereIn('order_id', clone $orders)
                ->whereIn('state', $states)->count();

            return new PluggedPlayer($player, $player->files(), $results(ResultState::Waiting, ResultState::Making),
                $results(ResultState::Failed));
        }, $this->players->all());
    }

    /** @return list<Result> results for a player that failed, as they do where it was pulled out */
    public function failed(Player $player): array
    {
        /** @var list<Result> $failed */
        $failed = Result::query()->where('state', ResultState::Failed)->whereIn('order_id', Order::query()
            ->where('place', 'shelf:'.$player->shelfName())->select('id'))->get()->all();

        return $failed;
    }
}
