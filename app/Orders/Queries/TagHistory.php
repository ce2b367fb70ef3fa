<?php

declare(strict_types=1);

namespace App\Orders\Queries;

use App\Orders\Models\Order;
use Illuminate\Support\Facades\Cache;

/** What the tags of a draft were before each of the last changes, so that they can be taken back, also after the page was left. */
final class TagHistory
{
    private const STEPS = 50;

    private const HOURS = 48;

    /** @param  array<int, ?array<string, string|list<string>|null>>  $before  changes of tags that a line had, by line */
    public function add(Order $order, array $before): void
    {
        $steps = $this->steps($order);
        $steps[] = $before;
        $this->keep($order, array_slice($steps, -self::STEPS));
    }

    /** @return array<int, ?array<string, string|list<string>|null>> the last step, which is gone then; empty where there is none */
    public function take(Order $order): array
    {
        $steps = $this->steps($order);
        $last = array_pop($steps) ?? [];
        $this->keep($order, $steps);

        return $last;
    }

    public function isEmpty(Order $order): bool
    {
        return $this->steps($order) === [];
    }

    /** @return list<array<int, ?array<string, string|list<string>|null>>> */
    private function steps(Order $order): array
    {
        $steps = Cache::get(self::name($order));

        /** @var list<array<int, ?array<string, string|list<string>|null>>> */
        return is_array($steps) ? array_values(array_filter($steps, is_array(...))) : [];
    }

    /** @param  list<array<int, ?array<string, string|list<string>|null>>>  $steps */
    private function keep(Order $order, array $steps): void
    {
        Cache::put(self::name($order), $steps, now()->addHours(self::HOURS));
    }

    private static function name(Order $order): string
    {
        return 'tags-before-'.$order->id;
    }
}
