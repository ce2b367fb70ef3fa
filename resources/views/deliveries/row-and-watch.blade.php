@include('deliveries.row', ['outside' => false])
@include('deliveries.watch', ['outside' => true, 'open' => true])
