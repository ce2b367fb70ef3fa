@extends('layout')
@section('title', $shelf->name)
@section('content')
    <div class="title-row">
        <h1>{{ $shelf->name }}</h1>
        <p class="lead">Files stay where they are; nothing is copied.</p>
    </div>
    <nav class="crumbs" aria-label="Folders">
        <a href="{{ route('shelves') }}">Shelves</a> / <a href="{{ route('shelf', $shelf->name) }}">{{ $shelf->name }}</a>
        @foreach($parts as $part) / <a href="{{ route('shelf', [$shelf->name, 'folder' => $part['path']]) }}">{{ $part['name']
            }}</a>@endforeach
    </nav>
    @if($entries !== [])
        <form class="copy-in" method="post" action="{{ route('shelf.copy', $shelf->name) }}">@csrf<input type="hidden" name="folder"
            value="{{ $folder }}">
            <button class="act act-quiet" type="submit">Copy this folder in</button> <span
                class="quiet">for cards and recorders that will be removed: with dates and checksums; recordings in several files become
                    one</span></form>
    @endif
    <form method="post" action="{{ route('shelf.take', $shelf->name) }}" data-pick data-pick-joined="paths">
        @csrf
        @if($entries === [])
            <div class="empty"><p>This folder is empty.</p></div>
        @else
            <table class="ledger">
                <thead><tr><th class="tick"><input type="checkbox" data-pick-all aria-label="Choose all files in this folder"></th>
                    <th>Name</th><th class="num">Size</th></tr></thead>
                <tbody>
                @foreach($entries as $entry)
                    <tr>
                        @if($entry->isFolder)
                            <td class="tick"><input type="checkbox" name="paths[]" value="{{ $entry->path }}" data-folder
                                aria-label="Take all of {{ $entry->name }}"></td><td class="name"><a
                                href="{{ route('shelf', [$shelf->name, 'folder' => $entry->path]) }}">{{ $say->name($entry->name)
                                }}/</a></td><td class="num">folder</td>
                        @else
                            <td class="tick"><input type="checkbox" name="paths[]" value="{{ $entry->path }}" id="entry-{{ $loop->index }}"
                                @if(isset($made[$entry->real])) data-made @endif></td>
                            <td class="name"><label for="entry-{{ $loop->index }}">{{ $say->name($entry->name)
                                }}</label>@if(isset($made[$entry->real]))<span class="under">made here</span>@endif @if($entry->isDisc())<a
                                class="under" href="{{ route('shelf.disc', [$shelf->name, 'path' => $entry->path])
                                }}">look into this disc</a>@endif</td><td class="num">{{ $say->bytes($entry->bytes) }}</td>
                        @endif
                    </tr>
                @endforeach
                </tbody>
            </table>
            <div class="foot" data-pick-foot hidden><p><output data-pick-count>0</output> chosen</p><button class="act"
                type="submit">Take these</button></div>
        @endif
    </form>
@endsection
