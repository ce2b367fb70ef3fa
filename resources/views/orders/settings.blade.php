<div id="settings" hx-swap-oob="morph">
    @include('orders.fields', ['choices' => $sheet->choices, 'prefix' => '', 'together' => count($sheet->lines) > 1])
</div>
