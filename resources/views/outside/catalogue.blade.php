@extends('layout')
@section('title', 'Catalogue')
@section('content')
    <div class="title-row"><h1>From the catalogue</h1><p class="lead">What it knows, beside what is there. Nothing is noted before you
        accept it, and no source is ever changed.</p></div>
    <form class="find" role="search" method="get" action="{{ route('catalogue') }}"><input type="hidden" name="sources"
        value="{{ $sources }}">
        <label for="words">Look up by words</label><input id="words" name="words" type="search" value="{{ $words }}"
            placeholder="title, artist or album"><button class="act act-quiet" type="submit">Look up</button>
        @if($words !== '')<a href="{{ route('catalogue', ['sources' => $sources]) }}">by disc or sound again</a>@endif</form>
    @if($found === [])<div class="empty"><p>Choose <a href="{{ route('sources') }}">sources</a> first, and come back from there.</p></div>
        @else
    <form method="post" action="{{ route('catalogue.accept') }}">@csrf
    @foreach($found as $one)
        <section class="player-body" aria-labelledby="found-{{ $one->source->id }}">
            <h2 id="found-{{ $one->source->id }}">{{ $one->source->heading() }}</h2>
            @if($one->says !== '')<p class="fault">{{ $one->says }}</p>
            @elseif($one->candidates === [])<p class="quiet">The catalogue knows nothing of it{{ $one->by === 'sound' ? ' by its sound' :
                ($one->by === 'disc' ? ' by its table of contents' : ' by these words') }}.</p>
            @else
                <div class="sheet-scroll"><table class="ledger compared">
                    <caption class="unseen">{{ $one->source->heading() }} compared</caption>
                    <thead><tr><th>Take</th><th class="num">Sure</th>@foreach($one->fields() as $label)<th>{{ $label }}</th>@endforeach</tr>
                        </thead>
                    <tbody>
                        <tr><td><label><input type="radio" name="accept[{{ $one->source->id }}]" value=""
                            @checked($one->proposed() === null)> what is there</label></td>
                            <td></td>@foreach($one->fields() as $field => $label)<td>{{ $one->there($field) }}</td>@endforeach</tr>
                        @foreach($one->candidates as $index => $candidate)
                            <tr><td><label><input type="radio" name="accept[{{ $one->source->id }}]" value="{{ json_encode($candidate) }}"
                                @checked($one->proposed() === $index)> {{ $candidate->fields['title'] ?? $candidate->fields['album'] ??
                                'this' }}</label>@if($candidate->tracks !== [])<details>
                                <summary>{{ count($candidate->tracks) }} tracks</summary><ol>@foreach($candidate->tracks as $track)
                                <li>{{ $track['title'] }}@if($track['performer'] !== ''), {{ $track['performer'] }}@endif</li>
                                @endforeach</ol></details>@endif</td><td class="num">{{ $candidate->percent() }} %</td>
                                @foreach($one->fields() as $field => $label)<td
                                    @class(['is-other' => ($candidate->fields[$field] ?? '') !== '' && $candidate->fields[$field] !==
                                    $one->there($field)])>{{ $candidate->fields[$field] ?? '' }}</td>@endforeach</tr>
                        @endforeach
                    </tbody>
                </table></div>
            @endif
        </section>
    @endforeach
        <div class="foot"><p><label class="tickline"><input type="checkbox" name="cover" value="1"
            checked> with the cover, where there is one</label></p><button class="act"
            type="submit">Accept {{ count($found) === 1 ? 'it' : 'what is chosen' }}</button></div>
    </form>
    @endif
@endsection
