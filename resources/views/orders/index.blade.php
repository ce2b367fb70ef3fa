@extends('layout')
@section('title', 'Order sheets')
@section('content')
    <div class="title-row"><h1>Order sheet</h1><p class="lead">Drafts stay until they are placed or deleted.</p>
        <div class="title-acts"><form method="post" action="{{ route('orders.store') }}">@csrf<button class="act act-quiet"
            type="submit">Begin an empty one</button></form></div></div>
    @if($drafts->isEmpty())
        <div class="empty">
            <p class="big">The sheet is empty.</p>
            <p>Tick what you want to work on among the <a href="{{ route('sources') }}">sources</a>: each tick is a line of an order.</p>
        </div>
    @else
        <table class="ledger">
            <caption class="unseen">Drafts</caption>
            <thead><tr><th>Order</th><th class="num">Lines</th><th>Changed last</th><th><span class="unseen">What can be done</span></th>
                </tr></thead>
            <tbody>
            @foreach($drafts as $draft)
                <tr><td class="name"><a href="{{ route('order', $draft) }}">{{ $draft->heading() }}</a></td><td
                    class="num">{{ number_format($draft->lines_count) }}</td>
                    <td>{{ $draft->updated_at->format('j M Y, H:i') }}</td>
                    <td><form method="post" action="{{ route('order.remove', $draft) }}">@csrf @method('delete')<button
                        class="act act-quiet" type="submit" aria-label="Throw away {{ $draft->heading() }}">Throw away</button></form></td>
                        </tr>
            @endforeach
            </tbody>
        </table>
        @if($drafts->hasPages())
            <nav class="pages" aria-label="Pages">
                @if($drafts->previousPageUrl())<a class="act act-quiet" href="{{ $drafts->previousPageUrl() }}" rel="prev">Newer</a>@endif
                @if($drafts->nextPageUrl())<a class="act act-quiet" href="{{ $drafts->nextPageUrl() }}" rel="next">Older</a>@endif
            </nav>
        @endif
    @endif
@endsection
