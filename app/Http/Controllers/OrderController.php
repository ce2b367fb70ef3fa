<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Actions\PlaceOrder;
use App\Http\Asked;
use App\Queries\OrderSheet;
use App\Values\OrderForm;
use Illuminate\Contracts\View\View;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;

final class OrderController
{
    public function sheet(Request $request, OrderSheet $sheets): View|RedirectResponse
    {
        $form = OrderForm::fromInput($request->query->all());
        if ($request->query->has('without')) {
            return redirect()->route('order', $form->without(Asked::number($request, 'without'))->query());
        }

        return view('orders.sheet', ['sheet' => $sheets->of($form, max(0, Asked::number($request, 'from')))]);
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
