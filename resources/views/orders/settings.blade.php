<div id="settings" data-renew>
    @include('orders.fields', ['choices' => $sheet->choices, 'prefix' => '', 'together' => count($sheet->lines) > 1])
</div>
