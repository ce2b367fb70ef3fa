@foreach($deliveries as $delivery)
@include('deliveries.row', ['outside' => true])
@endforeach
@include('deliveries.watch', ['outside' => true])
