{{-- What is renewed of a sheet: each part is laid over the one that stands there. --}}
@include('orders.head')
@include('orders.settings')
@include('orders.tools')
<div id="rows" hx-swap-oob="morph">@include('orders.rows')</div>
@include('orders.foot')
<div id="poll" hx-swap-oob="morph">@if($sheet->isWaiting())<div hx-get="{{ route('order', [$sheet->order, 'renew' => 1]) }}"
    hx-trigger="load delay:900ms" hx-swap="none" data-renews data-poll></div>@endif</div>
