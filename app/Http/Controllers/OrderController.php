<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Actions\PlaceOrder;
use App\Queries\OrderSheet;
use App\Values\OrderForm;
use Illuminate\Contracts\View\View;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;

final class OrderController
{
    public function sheet(Request $request, OrderSheet $sheets): View
    {
        return view('orders.sheet', ['sheet' => $sheets->of(OrderForm::fromInput($request->query->all()))]);
    }

    public function place(Request $request, PlaceOrder $place): RedirectResponse
    {
        $form = OrderForm::fromInput($request->request->all());
        $once = $request->request->get('once');
        $order = $place->place($form, is_string($once) && preg_match('/^[0-9a-f]{32}$/', $once) === 1 ? $once : '');

        return $order === null
            ? redirect()->route('order', $form->query())
                ->with('said', 'Nothing on this sheet can be made as it stands; what stands in the way is said beside each source.')
            : redirect()->route('results', ['order' => $order->id]);
    }
}
