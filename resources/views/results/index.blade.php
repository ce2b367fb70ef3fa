@extends('layout')
@section('title', 'Results')
@section('content')
    <div class="title-row">
        <h1>Results</h1>
        <p class="lead">What was made, read back and verified.</p>
        @if($only)<div class="title-acts"><a href="{{ route('results') }}">All orders</a></div>@endif
    </div>
    @include('results.watch', ['outside' => false])
    @if($orders->isEmpty())
        <div class="empty"><p class="big">Nothing was made yet.</p><p>Choose <a href="{{ route('sources') }}">sources</a>, put them on the order sheet and press the button there.</p></div>
    @endif
    @foreach($orders as $order)
        <section class="order" aria-labelledby="order-{{ $order->id }}">
            <h2 id="order-{{ $order->id }}"><a href="{{ route('results', ['order' => $order->id]) }}">{{ $order->heading() }}</a> <span class="quiet">{{ $order->summary }} · {{ $order->created_at->format('j M Y, H:i') }}</span>
                <form class="again" method="post" action="{{ route('order.again', $order) }}">@csrf<button class="link" type="submit">the same again</button> <button class="link" type="submit" name="empty" value="1">the same for other sources</button></form></h2>
            @foreach($order->results as $result)
                @include('results.row', ['outside' => false])
            @endforeach
        </section>
    @endforeach
    @if($orders->hasPages())
        <nav class="pages" aria-label="Pages">
            @if($orders->previousPageUrl())<a class="act act-quiet" href="{{ $orders->previousPageUrl() }}" rel="prev">Newer</a>@endif
            @if($orders->nextPageUrl())<a class="act act-quiet" href="{{ $orders->nextPageUrl() }}" rel="next">Older</a>@endif
        </nav>
    @endif
@endsection
