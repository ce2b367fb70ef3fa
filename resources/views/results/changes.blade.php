@foreach($results as $result)
@include('results.row', ['outside' => true])
@endforeach
@foreach($results->pluck('order')->unique('id') as $order)
@include('results.progress', ['outside' => true, 'order' => $order, 'own' => $progress[$order->id]])
@endforeach
@include('results.watch', ['outside' => true])
