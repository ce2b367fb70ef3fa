@extends('layout')
@section('title', 'Publish')
@section('content')
    <div class="title-row"><h1>Publish</h1><p class="lead">A host takes an episode, or says why not. Its feed is kept up to date.</p></div>
    <nav class="crumbs" aria-label="Where it lies"><a href="{{ route('outside') }}">Outside</a> / Publish</nav>
    @if(session('answers'))
        <div class="said" role="status"><ul class="answers">
            @foreach(session('answers') as $answer)
                <li><strong>{{ $answer->name }}</strong> {{ $answer->reasons === [] ? 'is published by '.$answer->host.'.' :
                    'is refused by '.$answer->host.':' }}@if($answer->reasons !== [])<ul>@foreach($answer->reasons as $reason)<li
                    class="fault">{{ $reason }}</li>@endforeach</ul>@endif</li>
            @endforeach
        </ul></div>
    @endif
    @if($hosts === [])
        <div class="empty"><p class="big">No host is known.</p><p>A host is a folder here that has a description, host.json, in it: what is
            put into {{ config('octavox.home') }}/hosts appears on this page.</p></div>
    @endif
    @foreach($hosts as $host)
        <section class="player-body" aria-labelledby="host-{{ $loop->index }}">
            <h2 id="host-{{ $loop->index }}">{{ $host->title() }}</h2>
            <p><a href="{{ route('publish.feed', $host->name()) }}">The feed</a> <span
                class="quiet">RSS 2.0, with {{ count($host->episodes()) === 1 ? 'one episode' : count($host->episodes()).' episodes'
                }}</span></p>
            @if($results->isNotEmpty())
                <form class="drive" method="post" action="{{ route('publish.offer') }}">@csrf<input type="hidden" name="host"
                    value="{{ $host->name() }}"><input type="hidden" name="results" value="{{ $results->pluck('id')->join(',') }}">
                    <button class="act" type="submit">Offer {{ $results->count() === 1 ? $results->first()->name :
                        $results->count().' results' }}</button></form>
            @endif
            @if($host->episodes() !== [])
                <table class="ledger"><caption class="unseen">Episodes of {{ $host->title() }}</caption>
                    <thead><tr><th>Episode</th><th class="num">Length</th><th class="num">Size</th><th>Published</th><th><span
                        class="unseen">What can be done</span></th></tr></thead>
                    <tbody>@foreach($host->episodes() as $episode)<tr><td class="name">{{ $episode->title }}<span
                        class="under">{{ $episode->description }}</span></td><td class="num">{{ $say->clock($episode->seconds) }}</td><td
                        class="num">{{ $say->bytes($episode->bytes) }}</td><td>{{ date('j M Y, H:i', $episode->published) }}</td>
                        <td><form method="post" action="{{ route('publish.withdraw') }}">@csrf<input type="hidden" name="host"
                            value="{{ $host->name() }}"><input type="hidden" name="guid" value="{{ $episode->guid }}"><button class="link"
                            type="submit" aria-label="withdraw {{ $episode->title }}">withdraw</button></form></td></tr>@endforeach</tbody>
                </table>
            @else
                <p class="quiet">Nothing is published yet. Mark <a href="{{ route('results')
                    }}">results</a> and publish them; an order for the podcast host makes them as it wants them.</p>
            @endif
        </section>
    @endforeach
@endsection
