{{-- What is renewed of a sheet: each part that has changed takes the place of the one before (sheet.js). --}}
@include('orders.head')
@include('orders.settings')
@include('orders.tools')
<div id="rows">@include('orders.rows')</div>
@include('orders.foot')
<div id="poll" data-renew>@if($sheet->isWaiting())<div hx-get="{{ route('order', [$sheet->order, 'renew' => 1]) }}"
    hx-trigger="load delay:900ms" hx-swap="none" data-renews data-poll></div>@endif</div>
