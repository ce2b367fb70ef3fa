@extends('layout')
@section('title', $editor->known->what->title)
@section('content')
    @include('presets.head')
    <form id="editor" method="post" action="{{ route('preset.update', [$editor->kind, $editor->known->what->name]) }}"
        hx-get="{{ route('preset', [$editor->kind, $editor->known->what->name]) }}" hx-trigger="change from:#made" hx-select="#made"
        hx-target="#made" hx-swap="outerHTML" hx-select-oob="#try" hx-sync="this:replace" hx-params="not _token,_method" autocomplete="off">
        @csrf @method('put')
        @include('presets.titles')
        <h2>What is accepted there</h2>
        <p class="note">A file is accepted that is of any of these kinds. Separate list entries with commas; empty fields are not
            checked.</p>
        @foreach([...$editor->accepts(), ...($editor->known->isOwn ? [null] : [])] as $index => $one)
            <fieldset class="kind">
                <legend>{{ $one === null ? 'A further kind' : 'Kind '.($index + 1) }}</legend>
                <label>Containers <input type="text" name="accepts[{{ $index }}][containers]"
                    value="{{ implode(', ', $one->containers ?? []) }}" placeholder="wav, aiff"></label>
                <label>Codecs <input type="text" name="accepts[{{ $index }}][codecs]" value="{{ implode(', ', $one->codecs ?? []) }}"
                    placeholder="pcm"></label>
                <label>Picture <select name="accepts[{{ $index }}][picture]">@foreach(['' => 'with or without', 'yes' => 'must have one',
                    'no' => 'must have none'] as $value => $label)<option value="{{ $value }}"
                    @selected(($one?->picture === true ? 'yes' : ($one?->picture === false ? 'no' : '')) === $value)>{{ $label }}</option>
                    @endforeach</select></label>
                <label>Rates, Hz <input type="text" name="accepts[{{ $index }}][rates]" value="{{ implode(', ', $one->rates ?? []) }}"
                    placeholder="44100, 48000"></label>
                <label>Bit depths <input type="text" name="accepts[{{ $index }}][bit_depths]"
                    value="{{ implode(', ', $one->bitDepths ?? []) }}" placeholder="16, 24"></label>
                <label>Layouts <input type="text" size="12" name="accepts[{{ $index }}][layouts]"
                    value="{{ implode(', ', $one->layouts ?? []) }}" placeholder="mono, stereo"></label>
                <label>Channels at most <input type="text" inputmode="numeric" size="4" name="accepts[{{ $index }}][most_channels]"
                    value="{{ $one?->mostChannels }}"></label>
                <label>kbit/s at least <input type="text" inputmode="numeric" size="5" name="accepts[{{ $index }}][least_kbps]"
                    value="{{ $one?->leastKbps }}"></label>
                <label>kbit/s at most <input type="text" inputmode="numeric" size="5" name="accepts[{{ $index }}][most_kbps]"
                    value="{{ $one?->mostKbps }}"></label>
                <label class="tickline"><input type="checkbox" name="accepts[{{ $index }}][constant]" value="1"
                    @checked($one?->constant === true)> constant bit rate only</label>
            </fieldset>
        @endforeach
        <h2>What is wanted of every file</h2>
        @if($editor->wants() !== [])<p>{{ ucfirst(implode(' · ', $editor->wants())) }}</p>@endif
        <fieldset class="kind">
            <legend class="unseen">Limits</legend>
            @foreach(['most_bytes' => ['Bytes at most', $editor->destination()->limits->mostBytes], 'most_seconds' => ['Seconds at most',
                $editor->destination()->limits->mostSeconds], 'most_name_bytes' => ['Bytes of the name at most',
                $editor->destination()->limits->mostNameBytes], 'most_lufs' => ['LUFS at most',
                $editor->destination()->limits->mostLufs]] as $field => [$label, $value])
                <label>{{ $label }} <input type="text" inputmode="numeric" size="10" name="limits[{{ $field }}]"
                    value="{{ $value }}"></label>
            @endforeach
            <label>Tags that must be filled <input type="text" name="limits[tags]"
                value="{{ implode(', ', array_map(fn ($field) => $field->value, $editor->destination()->limits->tags)) }}"
                placeholder="title, artist"></label>
            <label class="tickline"><input type="checkbox" name="limits[plain_name]" value="1"
                @checked($editor->destination()->limits->plainName)> plain letters and figures in names</label>
            <label class="tickline"><input type="checkbox" name="limits[plain_tags]" value="1"
                @checked($editor->destination()->limits->plainTags)> tags without emoji and control characters</label>
            <label class="tickline"><input type="checkbox" name="limits[cover]" value="1"
                @checked($editor->destination()->limits->cover)> a cover</label>
            <label class="tickline"><input type="checkbox" name="limits[broadcast]" value="1"
                @checked($editor->destination()->limits->broadcast)> fields of Broadcast WAV</label>
            <label class="tickline"><input type="checkbox" name="limits[index_first]" value="1"
                @checked($editor->destination()->limits->indexFirst)> the index at the start</label>
        </fieldset>
        <h2>What becomes of sound that must be remade</h2>
        <div class="choices choices-made" id="made">@include('orders.fields', ['choices' => $editor->choices, 'prefix' => '', 'together' =>
            false])</div>
        <div class="choices choices-made">
            <div class="choice"><label for="with_picture">Where the picture is kept</label><select id="with_picture" name="with_picture">
                <option value="">it is left out</option>@foreach($offer->videos() as $video)<option value="{{ $video->name() }}"
                @selected($editor->destination()->specWithPicture?->container === $video->name())>{{ $video->label() }}</option>
                @endforeach</select></div>
            <div class="choice"><label for="picture_sound">its sound becomes</label><select id="picture_sound"
                name="picture_sound">@foreach(['' => 'what the container usually has', 'wav' => 'PCM', 'aac' => 'AAC', 'flac' => 'FLAC',
                'mp3' => 'MP3', 'opus' => 'Opus'] as $value => $label)<option value="{{ $value }}"
                @selected(($editor->destination()->specWithPicture?->sounds()[0]->codec ?? '') === $value)>{{ $label }}</option>
                @endforeach</select></div>
        </div>
        @include('presets.try')
        @if($editor->known->isOwn)<p><button class="act" type="submit">Keep the changes</button></p>@endif
    </form>
    @if(! $editor->known->isOwn)<form method="post" action="{{ route('preset.copy', [$editor->kind, $editor->known->what->name])
        }}">@csrf<button class="act" type="submit">Copy it, to change it</button></form>@endif
@endsection
