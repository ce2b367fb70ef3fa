<?php

declare(strict_types=1);

namespace App\Orders\Pages;

use App\Orders\Models\Order;
use App\Orders\Values\OrderState;
use Illuminate\Contracts\Session\Session;

/** The draft that ticks among the sources go to: the one this browser worked on last, else the newest that stands open. */
final class CurrentDraft
{
    private const KEY = 'draft';

    private const NONE = 0;

    public function __construct(private readonly Session $session) {}

    public function find(): ?Order
    {
        $id = $this->session->get(self::KEY);
        $drafts = Order::query()->where('state', OrderState::Draft);

        return $id === self::NONE ? null : (is_int($id) ? $drafts->find($id) : $drafts->latest('updated_at')->first());
    }

    public function set(Order $order): void
    {
        $this->session->put(self::KEY, $order->id);
    }

    /** The next tick begins another draft. */
    public function forget(): void
    {
        $this->session->put(self::KEY, self::NONE);
    }
}
