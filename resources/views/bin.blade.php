@extends('layout')
@section('title', 'Bin')
@section('content')
    <div class="title-row"><h1>Bin</h1><p class="lead">Deleted files that can be restored. Nothing here is removed automatically.</p></div>
    @if($bin->isEmpty())
        <div class="empty"><p class="big">Nothing is in it.</p></div>
    @else
        <form method="post" action="{{ route('bin.update') }}">
            @csrf
            <div class="sheet-scroll">
            <table class="ledger">
                <caption class="unseen">Bin</caption>
                <thead><tr><th class="tick"><span class="unseen">Mark</span></th><th>Name</th><th>What it is</th><th>Where it was</th><th
                    class="num">Size</th><th>Since</th></tr></thead>
                <tbody>
                @foreach($bin->results() as $result)
                    <tr><td class="tick"><input type="checkbox" name="results[]" value="{{ $result->id }}"
                        aria-label="Mark {{ $result->name }}"></td><td class="name">{{ $result->name }}</td>
                        <td>result of {{ $result->order->heading() }}</td><td><code>{{ dirname((string) $result->path) }}</code></td><td
                        class="num">{{ $say->bytes($result->bytes) }}</td><td>{{ $result->updated_at->diffForHumans() }}</td></tr>
                @endforeach
                @foreach(array_slice($bin->replaced(), 0, 500) as $file)
                    <tr><td class="tick"><input type="checkbox" name="replaced[]" value="{{ $file->mark() }}"
                        aria-label="Mark {{ $file->name() }}"></td><td class="name">{{ $file->name() }}</td>
                        <td>file that a result replaced</td><td><code>{{ dirname($file->was) }}</code></td><td
                        class="num">{{ $say->bytes($file->bytes) }}</td><td>{{ $say->ago($file->since) }}</td></tr>
                @endforeach
                @foreach($bin->sources() as $source)
                    <tr><td class="tick"><input type="checkbox" name="sources[]" value="{{ $source->id }}"
                        aria-label="Mark {{ $source->heading() }}"></td><td class="name">{{ $source->heading() }}</td><td>source</td>
                        <td>{{ $bin->fate($source) }}</td><td class="num">{{ $say->bytes($source->bytes) }}</td>
                        <td>{{ $source->removed_at->diffForHumans() }}</td></tr>
                @endforeach
                </tbody>
            </table>
            </div>
            <div class="foot">
                <p>{{ $bin->says() }}</p>
                <button class="act" name="do" value="back" type="submit">Put the marked back</button>
                <button class="act act-quiet" name="do" value="destroy" type="submit"
                    data-asks="Delete the marked files permanently? This cannot be undone.">Delete the marked files permanently</button>
                <button class="act act-quiet" name="do" value="empty" type="submit"
                    data-asks="Delete everything in the bin for good? This cannot be undone.">Delete all for good</button>
            </div>
        </form>
    @endif
@endsection
