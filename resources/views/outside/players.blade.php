@extends('layout')
@section('title', 'Players')
@section('content')
    <div class="title-row"><h1>Players</h1><p class="lead">Files for them are made in a format they take, verified, and never exceed the
        space there is.</p></div>
    <nav class="crumbs" aria-label="Where it lies"><a href="{{ route('outside') }}">Outside</a> / Players</nav>
    <div id="players" @if($busy) hx-get="{{ route('players') }}" hx-trigger="every 1500ms" hx-select="#players" hx-swap="outerHTML" @endif>
    @if($players === [])
        <div class="empty"><p class="big">None is plugged in.</p><p>A player is a folder here that has a description, player.json, in it:
            what is put into {{ config('octavox.home') }}/players appears on this page.</p></div>
    @endif
    @foreach($players as $one)
        <section class="player-body" aria-labelledby="player-{{ $loop->index }}">
            <h2 id="player-{{ $loop->index }}">{{ $one->player->title() }}</h2>
            @if($one->player->body === null)
                <p class="fault">Its description, player.json, cannot be read, so nothing is sent to it.</p>
            @else
                <p>{{ $say->bytes($one->free()) }} free of {{ $say->bytes($one->capacity()) }} <meter min="0" max="100"
                    value="{{ $one->percent() }}">{{ $one->percent() }} %</meter>
                    <span class="quiet">{{ $one->player->body->destination->note }}</span></p>
                <div class="drive">
                    <form method="post" action="{{ route('player.send') }}">@csrf<input type="hidden" name="player"
                        value="{{ $one->player->name }}">
                        @if($results !== '')<input type="hidden" name="results" value="{{ $results }}">@endif<button class="act"
                            type="submit" @disabled($chosen === 0)>{{ $chosen === 0 ? 'Nothing is chosen to send' :
                            'Send the '.$chosen.($results === '' ? ' chosen source' : ' marked result').($chosen === 1 ? '' : 's')
                            }}</button>
                        <label class="tickline"><input type="checkbox" name="all" value="1"> make all of them in its own format</label>
                            </form>
                    @if($one->failed > 0)<form method="post" action="{{ route('player.again') }}">@csrf<input type="hidden" name="player"
                        value="{{ $one->player->name }}"><button class="act act-quiet"
                        type="submit">Go on with {{ $one->failed }} that could not be written</button></form>@endif
                    <p>@if($one->open > 0)<span class="busy">{{ $one->open }} still to be written; leave it plugged in</span>@else<span
                        class="quiet">nothing is being written; it can be pulled out</span>@endif</p>
                </div>
            @endif
            @if($one->files !== [])
                <form method="post" action="{{ route('player.remove') }}" data-pick>@csrf<input type="hidden" name="player"
                    value="{{ $one->player->name }}">
                <table class="ledger"><caption class="unseen">What is on {{ $one->player->title() }}</caption>
                    <thead><tr><th class="tick"><input type="checkbox" data-pick-all
                        aria-label="Choose all on {{ $one->player->title() }}"></th><th>File</th><th class="num">Size</th></tr></thead>
                    <tbody>@foreach($one->shown() as $path => $bytes)<tr><td class="tick"><input type="checkbox" name="files[]"
                        value="{{ $path }}" id="file-{{ $loop->parent->index }}-{{ $loop->index }}"></td><td class="name"><label
                        for="file-{{ $loop->parent->index }}-{{ $loop->index }}">{{ $say->name($path) }}</label></td><td
                        class="num">{{ $say->bytes($bytes) }}</td></tr>@endforeach</tbody>
                </table>
                @if($one->beyond() > 0)<p class="quiet">{{ number_format($one->beyond())
                    }} more are on it; they are listed once these are taken off.</p>@endif
                <div class="foot" data-pick-foot hidden><p><output data-pick-count>0</output> chosen</p><button class="act act-quiet"
                    type="submit">Take these off the player</button></div>
                </form>
            @elseif($one->player->body !== null)
                <p class="quiet">Nothing is on it yet. Tick <a href="{{ route('sources') }}">sources</a> or mark <a
                    href="{{ route('results') }}">results</a>, and send them here.</p>
            @endif
        </section>
    @endforeach
    </div>
@endsection
