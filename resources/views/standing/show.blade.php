@extends('layout')
@section('title', $standing->title)
@section('content')
    <nav class="crumbs" aria-label="Where this is"><a href="{{ route('standing') }}">Standing orders</a></nav>
    <div class="title-row"><h1>{{ $standing->title }}</h1><p class="lead">{{ $standing->paused ? 'Paused: nothing is taken.' :
        'Watches '.$standing->shelf.($standing->folder === '' ? '' : '/'.$standing->folder).'.' }}</p>
        <div class="title-acts">
            <form method="post" action="{{ route('standing.work', $standing) }}">@csrf<button class="act act-quiet" name="paused"
                value="{{ $standing->paused ? 0 : 1 }}">{{ $standing->paused ? 'Go on' : 'Pause' }}</button></form>
            <form method="post" action="{{ route('standing.remove', $standing) }}">@csrf @method('delete')<button
                class="act act-quiet">Delete</button></form>
        </div>
    </div>
    @if($standing->trouble !== '')<p class="fault">{{ $standing->trouble }} It is tried again every few seconds.</p>@endif
    <form method="post" action="{{ route('standing.update', $standing) }}">@csrf @method('put')
        @include('standing.fields')
        <p><button class="act" type="submit">Set it</button></p>
    </form>
    <h2>What would be taken now</h2>
    @if($count === 0)<p>Nothing new lies there.</p>
    @else<p>{{ $count === 1 ? 'One file' : number_format($count).' files' }}: {{ implode(', ', $names) }}{{ $count > count($names) ? ' …' :
        '' }}</p>@endif
    <h2>What arrived</h2>
    @if($log->isEmpty())<p>Nothing so far.</p>
    @else
        <table class="ledger">
            <caption class="unseen">Arrivals, newest first</caption>
            <thead><tr><th>File</th><th>State</th><th>What came of it</th><th>When</th></tr></thead>
            <tbody>
            @foreach($log as $one)
                <tr><td class="name">@if($one->source)<a href="{{ route('source', $one->source) }}">{{ $one->path }}</a>@else{{ $one->path
                    }}@endif</td>
                    <td>{{ $one->state->label() }}</td>
                    <td>@if($one->order && ! $one->order->isDraft())<a
                        href="{{ route('results', ['order' => $one->order->id]) }}">{{ $one->order->heading() }}</a>@endif {{ $one->says
                        }}</td>
                    <td class="when">{{ $one->updated_at->format('j M, H:i:s') }}</td></tr>
            @endforeach
            </tbody>
        </table>
    @endif
@endsection
