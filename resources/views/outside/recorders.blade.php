@extends('layout')
@section('title', 'Recorders')
@section('content')
    <div class="title-row"><h1>Recorders</h1><p class="lead">Copied completely, with dates and verified checksums. Nothing on them is
        deleted.</p>
        </div>
    <nav class="crumbs" aria-label="Where it lies"><a href="{{ route('outside') }}">Outside</a> / Recorders</nav>
    <div id="recorders" @if($copying) hx-get="{{ route('recorders') }}" hx-trigger="every 900ms" hx-select="#recorders" hx-swap="outerHTML"
        @endif>
    @if($recorders === [])
        <div class="empty"><p class="big">None is plugged in.</p><p>A recorder is a folder here: what is put into {{ config('octavox.home')
            }}/recorders appears on this page.</p></div>
    @else
        <div class="sheet-scroll"><table class="ledger">
            <caption class="unseen">Recorders</caption>
            <thead><tr><th>Name</th><th class="num">Recordings</th><th class="num">New</th><th class="num">Size</th><th>Last copy</th>
                <th><span class="unseen">What can be done</span></th></tr></thead>
            <tbody>
            @foreach($recorders as $one)
                <tr><td class="name">{{ $one->name }}</td><td class="num">{{ $one->files }}</td><td
                    class="num">{{ $one->new }}@if($one->unchecked > 0)<br><span class="quiet"
                    title="Their name, size and date were copied in before; whether their content was, a comparison tells.">{{
                    $one->unchecked }} to compare</span>@endif</td><td class="num">{{ $say->bytes($one->bytes) }}</td>
                    <td>@if($one->isCopying())<span class="busy">{{ $one->says() }}</span>@else<span
                        @class(['fault' => $one->copy?->state === 'failed'])>{{ $one->says() }}</span>@endif</td>
                    <td>@if(! $one->isAllHere() && ! $one->isCopying())<form method="post" action="{{ route('recorder.copy') }}">@csrf<input
                        type="hidden" name="recorder" value="{{ $one->name }}"><button class="act act-quiet" type="submit"
                        aria-label="{{ $one->new > 0 ? 'Copy in what is new on' : 'Compare the contents of' }} {{ $one->name }}">{{
                        $one->copy?->state === 'failed' ? 'Go on' : ($one->new > 0 ? 'Copy in what is new' : 'Compare the contents')
                        }}</button></form>@elseif(! $one->isCopying())<span
                        class="quiet">all of it is here; it can be pulled out</span>@endif</td></tr>
            @endforeach
            </tbody>
        </table></div>
    @endif
    </div>
@endsection
