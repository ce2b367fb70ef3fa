@include('results.row', ['outside' => false])
@include('results.watch', ['outside' => true, 'open' => true])
