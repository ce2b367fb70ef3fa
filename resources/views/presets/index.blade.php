@use('App\Presets\Values\PresetKind')
@extends('layout')
@section('title', $kind->plural())
@section('content')
    <div class="title-row">
        <h1>{{ $kind->plural() }}</h1>
        <p class="lead">{{ $kind === PresetKind::Recipe ? 'Ways of making, with a name.' :
            'Where results go, as rules of what is accepted there.' }}</p>
        <div class="title-acts">
            <a href="{{ route('presets', $kind === PresetKind::Recipe ? PresetKind::Destination : PresetKind::Recipe) }}">{{ $kind ===
                PresetKind::Recipe ? 'Destinations' : 'Recipes' }}</a>
        </div>
    </div>
    <form class="import" method="post" action="{{ route('preset.import', $kind) }}" enctype="multipart/form-data">@csrf
        <label for="file">Take one in from a file</label> <input id="file" type="file" name="file" accept="application/json,.json" required>
        <button class="act act-quiet" type="submit">Take it in</button>
    </form>
    <table class="ledger presets">
        <caption class="unseen">{{ $kind->plural() }}</caption>
        <thead><tr><th><span class="unseen">Star</span></th><th>Name</th><th>What it is</th><th><span
            class="unseen">What can be done</span></th></tr></thead>
        <tbody>
        @foreach($presets as $name => $one)
            <tr>
                <td><form method="post" action="{{ route('preset.star', [$kind, $name]) }}">@csrf<input type="hidden" name="on"
                    value="{{ $one->starred ? 0 : 1 }}"><button class="star" type="submit"
                    aria-pressed="{{ $one->starred ? 'true' : 'false' }}"
                    aria-label="Star {{ $one->what->title }}">{{ $one->starred ? '★' : '☆' }}</button></form></td>
                <td class="name"><a href="{{ route('preset', [$kind, $name]) }}">{{ $one->what->title }}</a><span
                    class="under">{{ $one->isOwn ? 'made here' : 'ships with Octavox' }}@if($one->usedAt), used {{
                    $one->usedAt->format('j M Y') }}@endif</span></td>
                <td>{{ $one->what->note }}</td>
                <td class="preset-acts">
                    <form method="post" action="{{ route('preset.copy', [$kind, $name]) }}">@csrf<button class="act act-quiet" type="submit"
                        aria-label="Copy {{ $one->what->title }}">Copy</button></form>
                    <a class="act act-quiet" href="{{ route('preset.file', [$kind, $name]) }}" download
                        aria-label="Save {{ $one->what->title }} as a file">As a file</a>
                    @if($one->isOwn)<form method="post" action="{{ route('preset.remove', [$kind, $name]) }}">@csrf @method('delete')<button
                        class="act act-quiet" type="submit" aria-label="Delete {{ $one->what->title }}">Delete</button></form>@endif
                </td>
            </tr>
        @endforeach
        </tbody>
    </table>
@endsection
