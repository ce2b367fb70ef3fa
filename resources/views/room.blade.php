@extends('layout')
@section('title', 'Room')
@section('content')
    <div class="title-row"><h1>Room</h1><p class="lead">{{ $room->lead() }}</p></div>
    <p class="note">Below that, new work waits and goes on by itself once there is room. <a
        href="{{ route('settings') }}#free_gigabytes">Change how much stays free</a></p>
    <form method="post" action="{{ route('room.free') }}">
        @csrf
        <table class="ledger">
            <caption class="unseen">What can be freed</caption>
            <thead><tr><th>What</th><th class="num">Size</th><th>What becomes of it</th><th></th></tr></thead>
            <tbody>
                <tr><td>Bin</td><td class="num">{{ $say->bytes($bin->bytes()) }}</td>
                    <td>{{ $bin->isEmpty() ? 'Nothing is in it.' : 'Delete for good what you will not want back.' }}</td><td><a
                    href="{{ route('bin') }}">Look into the bin</a></td></tr>
                <tr><td>Results of the past</td><td class="num"></td><td>Delete what has arrived where it belongs; it goes into the bin
                    first.</td><td><a href="{{ route('results') }}">Results</a></td></tr>
                <tr><td>Sources that were brought in</td><td class="num"></td>
                    <td>Remove from the list what is no longer needed; it goes into the bin first.</td><td><a
                    href="{{ route('sources', ['by' => 'size']) }}">Sources, largest first</a></td></tr>
                <tr><td>Unfinished uploads ({{ count($freeable->uploads()) }})</td><td
                    class="num">{{ $say->bytes($freeable->uploadBytes()) }}</td><td>They cannot be resumed after that.</td>
                    <td>@if(count($freeable->uploads()) > 0)<button class="act act-quiet" name="do" value="uploads" type="submit"
                    data-asks="Give up all unfinished uploads? What has arrived of them is deleted.">Give them up</button>@endif</td></tr>
                <tr><td>Drawings of sound ({{ number_format($freeable->drawings()[0]) }})</td><td
                    class="num">{{ $say->bytes($freeable->drawings()[1]) }}</td><td>Each is drawn again when you look at it.</td>
                    <td>@if($freeable->drawings()[0] > 0)<button class="act act-quiet" name="do" value="drawings"
                    type="submit">Delete them</button>@endif</td></tr>
            </tbody>
        </table>
    </form>
@endsection
