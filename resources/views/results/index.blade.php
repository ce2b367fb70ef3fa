@use('App\Results\Queries\ResultSearch')
@extends('layout')
@section('title', 'Results')
@section('content')
    <div class="title-row">
        <h1>Results</h1>
        <p class="lead">What was made, read back and verified.</p>
        <form class="find" role="search" action="{{ route('results') }}" method="get">
            <label for="find">Find</label>
            <input id="find" name="find" type="search" value="{{ $search->find }}" placeholder="result or source" autocomplete="off">
            <label for="show">Show</label>
            <select id="show" name="show">@foreach(ResultSearch::SHOWN as $value => $label)<option value="{{ $value }}"
                @selected($search->show === $value)>{{ $label }}</option>@endforeach</select>
            <button class="act act-quiet" type="submit">Look</button>
        </form>
        @if($search->order || $search->isNarrow())<div class="title-acts"><a href="{{ route('results') }}">All orders</a></div>@endif
    </div>
    @if($search->find !== '' && $say->isShort($search->find))<p class="note">For fewer than three letters only the newest {{
        number_format(App\Database\FoundNames::NEWEST) }} results are looked through.</p>@endif
    @if($search->folder !== '')<p>What lies in <code>{{ $search->folder }}</code></p>@endif
    @include('results.watch', ['outside' => false])
    @if($orders->isEmpty())
        @if($search->isNarrow())<div class="empty"><p>No result is like that.</p></div>
        @else<div class="empty"><p class="big">Nothing was made yet.</p><p>Choose <a
            href="{{ route('sources') }}">sources</a>, put them on the order sheet and press the button there.</p></div>@endif
    @endif
    <form id="many" method="post" action="{{ route('results.many') }}" data-many>@csrf
    @foreach($orders->items as $one)
        <section class="order" aria-labelledby="order-{{ $one->order->id }}">
            <h2 id="order-{{ $one->order->id }}"><a href="{{ route('results', ['order' => $one->order->id]) }}">{{ $one->order->heading()
                }}</a> <span class="quiet">{{ $one->order->summary }} · {{ $one->order->created_at->format('j M Y, H:i') }}</span>
                <span class="again"><button class="link" type="submit" form="again-{{ $one->order->id }}">the same again</button> <button
                    class="link" type="submit" form="again-{{ $one->order->id }}" name="empty"
                    value="1">the same for other sources</button></span></h2>
            @include('results.progress', ['outside' => false, 'order' => $one->order, 'own' => $progress[$one->order->id]])
            @foreach($one->results as $result)
                @include('results.row', ['outside' => false])
            @endforeach
            @if(! $search->isNarrow() && $search->order === null && $progress[$one->order->id]->files > $one->results->count())<p
                class="more"><a href="{{ route('results', ['order' => $one->order->id]) }}">All {{
                number_format($progress[$one->order->id]->files) }} results of this order</a></p>@endif
        </section>
    @endforeach
    @if(! $orders->isEmpty())
        <div class="foot" id="marked-foot" hidden>
            <p><output data-marked-count>0</output> marked</p>
            @foreach(['download' => 'As one ZIP', 'disc' => 'As an audio disc', 'player' => 'To a player', 'page' => 'On a web page',
                'publish' => 'Publish', 'retry' => 'Begin again', 'forget' => 'Take off the list', ...($search->show === 'bin' ?
                ['put-back' => 'Put back', 'destroy' => 'Delete for good'] : ['bin' => 'Into the bin'])] as $do => $label)<button
                class="act act-quiet" type="submit" name="do" value="{{ $do }}">{{ $label }}</button>@endforeach
        </div>
    @endif
    </form>
    @foreach($orders->items as $one)
        <form id="work-{{ $one->order->id }}" method="post" action="{{ route('order.work', $one->order) }}">@csrf</form>
        <form id="again-{{ $one->order->id }}" method="post" action="{{ route('order.again', $one->order) }}">@csrf</form>
    @endforeach
    @if($orders->hasPages())
        <nav class="pages" aria-label="Pages">
            @if($orders->previous())<a class="act act-quiet" href="{{ $orders->previous() }}"
                rel="prev">{{ $search->order && ! $search->isNarrow() ? 'Before' : 'Newer' }}</a>@endif
            @if($orders->next())<a class="act act-quiet" href="{{ $orders->next() }}"
                rel="next">{{ $search->order && ! $search->isNarrow() ? 'After' : 'Older' }}</a>@endif
        </nav>
    @endif
@endsection
