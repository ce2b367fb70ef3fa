@extends('layout')
@section('title', 'Web page')
@section('content')
    <div class="title-row"><h1>On a web page</h1><p class="lead">One HTML file with a player in it, and the sound beside. It needs no
        network but for the sound itself.</p></div>
    @if($results->isEmpty())
        <div class="empty"><p>None of these is sound that browsers play. Mark results as MP3, AAC, FLAC, Opus or WAV in <a
            href="{{ route('results') }}">Results</a>, and come back.</p></div>
    @else
        @if($left > 0)<p class="quiet">{{ $left }} of those that were marked {{ $left === 1 ? 'is' : 'are'
            }} left out: not there any more, or nothing that browsers play.</p>@endif
        <div class="page-maker">
            <form method="get" action="{{ route('page') }}" class="choices" id="page-form" hx-get="{{ route('page') }}" hx-trigger="change"
                hx-target="#page-preview" hx-select="#page-preview" hx-swap="outerHTML" hx-push-url="true">
                <input type="hidden" name="results" value="{{ $results->pluck('id')->join(',') }}">
                <div class="choice choice-wide"><label for="page-title">Title</label><input id="page-title" name="title" type="text"
                    maxlength="120" value="{{ $choices->title }}"></div>
                @foreach(['ground' => 'Ground', 'ink' => 'Text', 'accent' => 'Accent'] as $field => $label)
                    <div class="choice"><label for="page-{{ $field }}">{{ $label }}</label><input id="page-{{ $field }}" name="{{ $field }}"
                        type="color" value="{{ $choices->colours[$field] }}"></div>
                @endforeach
                <div class="choice"><label for="page-width">Width</label><input id="page-width" name="width" type="text" inputmode="numeric"
                    size="6" value="{{ $choices->width }}"><p class="note">pixels at the most</p></div>
                <div class="choice"><span class="label">Shows</span>
                    <label class="tickline"><input type="checkbox" name="cover" value="1" @checked($choices->hasCover)> the cover</label>
                    <label class="tickline"><input type="checkbox" name="waveform" value="1"
                        @checked($choices->hasWaveform)> the waveform</label></div>
                <noscript><button class="act act-quiet" type="submit">Show it</button></noscript>
            </form>
            <div id="page-preview">
                @if(! $choices->isReadable())<p class="fault">Text in this colour is hard to read on this background: its contrast is {{
                    number_format($choices->contrast(), 1) }}, and 4.5 is the minimum.</p>@endif
                <iframe src="{{ route('page.preview', $query) }}" title="How the page will look" width="{{ $choices->width + 8 }}"
                    height="{{ 190 + ($results->count() > 1 ? min(8, $results->count()) * 44 : 0) }}"></iframe>
                <form method="post" action="{{ route('page.make') }}">@csrf
                    @foreach(['results' => $results->pluck('id')->join(','), 'title' => $choices->title, 'ground' =>
                        $choices->colours['ground'], 'ink' => $choices->colours['ink'], 'accent' => $choices->colours['accent'], 'width' =>
                        $choices->width, 'cover' => $choices->hasCover ? '1' : '0', 'waveform' => $choices->hasWaveform ? '1' :
                        '0'] as $field => $value)<input type="hidden" name="{{ $field }}" value="{{ $value }}">@endforeach
                    <button class="act" name="do" value="archive" type="submit">Page and sound as one ZIP</button>
                    <button class="act act-quiet" name="do" value="beside" type="submit">Put the page beside its results</button>
                </form>
                <label for="page-snippet">To show it within another page</label>
                <textarea id="page-snippet" rows="3" readonly spellcheck="false" data-select-all>{{ $snippet }}</textarea>
            </div>
        </div>
    @endif
@endsection
