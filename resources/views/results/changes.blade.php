@foreach($results as $result)
@include('results.row', ['outside' => true])
@endforeach
@include('results.watch', ['outside' => true])
