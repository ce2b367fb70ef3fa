@extends('layout')
@section('title', 'Shelves')
@section('content')
    <div class="title-row"><h1>Shelves</h1><p class="lead">Folders of this machine that its owner opened to Octavox.</p></div>
    @if($shelves === [])
        <div class="empty"><p class="big">No folder is open.</p>
        <p>Start Octavox with <code>OCTAVOX_SHELVES="Footage=/path/to/footage"</code> to take files from there without copying them; several
            are separated by colons.</p></div>
    @else
        <ul class="shelf">@foreach($shelves as $shelf)<li><a href="{{ route('shelf', $shelf->name) }}">{{ $shelf->name }}</a> <span
            class="under">{{ $shelf->root }}</span></li>@endforeach</ul>
    @endif
@endsection
