@extends('layout')
@section('title', $shelf === null ? 'Drive' : 'Disc')
@section('content')
    <div class="title-row">
        <h1>{{ $path === null ? 'The tray is empty' : $say->name($disc?->label ?: $say->disc($path)) }}</h1>
        <p class="lead">@if($disc !== null){{ $disc->isVideo ? 'Video disc' : 'Audio disc' }}@if($disc->performer !== ''), {{
            $disc->performer }}@endif, {{ count($disc->parts) === 1 ? 'one' : count($disc->parts) }} {{ $disc->isVideo ? 'title' : 'track'
            }}{{ count($disc->parts) === 1 ? '' : 's' }}@elseif($path ===
            null)Put an image of a disc, or the folder of one, into the tray.@else It cannot be used.@endif</p>
    </div>
    <nav class="crumbs" aria-label="Where it lies">
        @if($shelf === null)<a href="{{ route('outside') }}">Outside</a> / Drive @else<a href="{{ route('shelves') }}">Shelves</a> / <a
            href="{{ route('shelf', [$shelf, 'folder' => trim(dirname($relative), '.')]) }}">{{ $shelf }}</a> / {{
            $say->name(basename($relative)) }}@endif
    </nav>
    @if($shelf === null)
        <div class="drive">
            @if($path !== null)
                <form method="post" action="{{ route('drive.move') }}">@csrf<button class="act act-quiet" type="submit">Eject</button>
                    </form>
            @endif
            @if($beside !== [] && $path === null)
                <form class="in-line" method="post" action="{{ route('drive.move') }}">@csrf
                    <label for="insert">Beside the drive</label>
                    <select id="insert" name="insert">@foreach($beside as $name)<option value="{{ $name }}">{{ $say->name($name) }}</option>
                        @endforeach</select>
                    <button class="act act-quiet" type="submit">Put in</button></form>
            @endif
            <p class="quiet">This drive is a folder: {{ config('octavox.home') }}/drive/tray</p>
        </div>
    @endif
    @if($says !== '')
        <div class="empty"><p class="fault">{{ $says }}</p></div>
    @elseif($disc !== null)
        <form method="post" action="{{ route('disc.take') }}" data-pick>
            @csrf<input type="hidden" name="shelf" value="{{ $shelf }}"><input type="hidden" name="path" value="{{ $relative }}">
            <div class="sheet-scroll">
            <table class="ledger">
                <caption class="unseen">{{ $disc->isVideo ? 'Titles' : 'Tracks' }}</caption>
                @if($disc->isVideo)
                    <thead><tr><th class="tick"><input type="checkbox" data-pick-all aria-label="Choose all titles"></th><th>Title</th><th
                        class="num">Length</th><th class="num">Chapters</th><th>Sound tracks</th><th></th></tr></thead>
                    <tbody>
                    @foreach($disc->parts as $part)
                        <tr>
                            <td class="tick"><input type="checkbox" name="titles[]" value="{{ $part->number }}"
                                id="title-{{ $part->number }}" @disabled($part->obstacle !== '' || isset($taken[$part->number]))></td>
                            <td class="name"><label for="title-{{ $part->number }}">Title {{ $part->number }}</label>@if($part->angles >
                                1)<span class="under">the first of {{ $part->angles }} angles</span>@endif</td>
                            <td class="num">{{ $say->clock($part->seconds) }}</td><td class="num">{{ $part->chapters }}</td>
                            <td class="tracks">@foreach($part->sounds as $sound)<span>{{ $sound->language === null ? '' :
                                $say->language($sound->language).', ' }}{{ $sound->codec }}, {{ $sound->layout }}, {{
                                number_format($sound->kbps) }} kbit/s{{ $sound->purpose === '' ? '' : ' – '.lcfirst($sound->purpose)
                                }}</span>@endforeach @if($part->obstacle !== '')<span
                                class="fault">{{ $part->obstacle }}</span>@elseif($part->sounds === [])<span>none</span>@endif</td>
                            <td>@if(isset($taken[$part->number]))<a href="{{ route('source', $taken[$part->number]) }}">taken</a>@endif</td>
                        </tr>
                    @endforeach
                    </tbody>
                @else
                    <thead><tr><th class="num">Track</th><th>Name</th><th>Code (ISRC)</th><th></th><th class="num">Length</th></tr></thead>
                    <tbody>@foreach($disc->parts as $part)<tr><td class="num">{{ $part->number }}</td><td
                        class="name">{{ $part->name }}</td><td>{{ $part->track->isrc ?? '' }}</td><td
                        class="quiet">{{ implode(', ', array_filter([$part->track?->isEmphasised ? 'pre-emphasis' : '', $part->track?->ends
                        !== null ? 'a gap follows' : ''])) }}</td><td class="num">{{ $say->clock($part->seconds) }}</td></tr>
                        @endforeach</tbody>
                @endif
            </table>
            </div>
            @if($disc->isVideo)
                <div class="foot" data-pick-foot hidden><p><output data-pick-count>0</output> chosen</p><button class="act"
                    type="submit">Take these</button></div>
            @else
                <div class="foot"><p>The whole disc is one source; the sheet makes a file of each track.</p><button class="act" name="audio"
                    value="1" type="submit">Take this disc</button></div>
            @endif
        </form>
    @endif
@endsection
