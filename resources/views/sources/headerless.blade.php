@extends('layout')
@section('title', 'Without a header: '.$source->heading())
@push('scripts')<script type="module" src="/assets/js/headerless.js"></script>@endpush
@section('content')
    <div class="title-row"><h1 class="file-name">{{ $source->heading() }}</h1><p
        class="lead">A file that does not say what it holds. Try until it looks and sounds right.</p></div>
    <form class="headerless" method="post" action="{{ route('source.state', $source) }}"
        data-headerless="{{ route('source.headerless.sound', $source) }}">
        @csrf @method('put')
        @if($known)<p>Files that end in .{{ $known->extension }} are remembered{{ $known->recorder === '' ? '' :
            ' as those of '.$known->recorder }}: <button type="button" class="act act-quiet"
            data-guess="{{ $known->as }}">{{ $known->label() }}</button></p>@endif
        @if($guesses === [])
            <p>Its bytes do not look like sound of any kind; it may be something else altogether.</p>
        @else
            <p>Its bytes make likely: @foreach($guesses as $guess)<button type="button" class="act act-quiet"
                data-guess="{{ $guess }}">{{ $guess->label() }}</button> @endforeach</p>
        @endif
        <div class="choices">
            <div class="choice"><label for="kind">Kind</label><select id="kind"
                name="kind">@foreach($offer->headerless() as $kind => $label)<option value="{{ $kind }}"
                @selected($as->kind() === $kind)>{{ $label }}</option>@endforeach</select><p class="note">noise means another kind</p></div>
            <div class="choice"><label for="rate">Samples a second</label><input id="rate" name="rate" type="text" inputmode="numeric"
                size="8" list="rates" value="{{ $as->rate }}"><datalist
                id="rates">@foreach([8000, 11025, 16000, 22050, 24000, 32000, 44100, 48000, 88200, 96000] as $rate)
                <option>{{ $rate }}</option>@endforeach</datalist><p class="note">too slow and deep, or too fast and high, means another
                rate</p></div>
            <div class="choice"><label for="channels">Channels</label><select id="channels" name="channels">@foreach(range(1, 8) as $count)
                <option @selected($as->channels === $count)>{{ $count }}</option>@endforeach</select><p
                class="note">half as fast means fewer, twice as fast means more</p></div>
        </div>
        <figure class="headerless-look">
            <canvas width="1200" height="160" role="img" aria-label="Waveform of what is tried"></canvas>
            <figcaption class="num-line" aria-live="polite" data-headerless-says>being decoded</figcaption>
        </figure>
        <audio controls preload="none" aria-label="What is tried"></audio>
        <div class="choices">
            <div class="choice choice-wide"><span class="label">Its recorder</span><label class="tickline"><input type="checkbox"
                name="remember" value="1" checked> read all files that end in .{{ pathinfo($source->name, PATHINFO_EXTENSION)
                }} like this from now on</label></div>
            <div class="choice"><label for="recorder">Called</label><input id="recorder" name="recorder" type="text" maxlength="60"
                value="{{ $known?->recorder }}" placeholder="Field box"></div>
        </div>
        <p><button class="act" type="submit">It sounds right: read it as this</button> <a
            href="{{ route('source', $source) }}">Leave it</a></p>
    </form>
@endsection
