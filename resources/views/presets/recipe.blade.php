@extends('layout')
@section('title', $editor->known->what->title)
@section('content')
    @include('presets.head')
    <form id="editor" method="post" action="{{ route('preset.update', [$editor->kind, $editor->known->what->name]) }}"
        hx-get="{{ route('preset', [$editor->kind, $editor->known->what->name]) }}" hx-trigger="change" hx-select="#made" hx-target="#made"
        hx-swap="outerHTML" hx-select-oob="#try" hx-sync="this:replace" hx-params="not _token,_method" autocomplete="off">
        @csrf @method('put')
        @include('presets.titles')
        <div class="choices choices-made" id="made">
            @include('orders.fields', ['choices' => $editor->choices, 'prefix' => '', 'together' => true])
            <div class="choice choice-wide"><label for="labels">Labels of the channels</label><input id="labels" name="labels" type="text"
                value="{{ $editor->choices->form->labels() }}" placeholder="lav, boom"></div>
            <div class="choice"><label for="pieces">Cut</label><input id="pieces" name="pieces" type="text"
                value="{{ $editor->choices->form->sound()->pieces }}" placeholder="all of it"><p class="note">like 0:02-end, or 0-30</p>
                </div>
            <div class="choice"><label for="fade_in">Fade in</label><input id="fade_in" name="fade_in" type="text" size="7"
                value="{{ $editor->choices->form->sound()->fadeIn }}" placeholder="0.0"><p class="note">seconds</p></div>
            <div class="choice"><label for="fade_out">Fade out</label><input id="fade_out" name="fade_out" type="text" size="7"
                value="{{ $editor->choices->form->sound()->fadeOut }}" placeholder="0.0"><p class="note">seconds</p></div>
            <div class="choice"><label for="existing">If the name is taken</label><select id="existing"
                name="existing">@foreach(['' => 'as the order says', 'number' => 'number it', 'replace' => 'replace it', 'skip' =>
                'leave it out', 'ask' => 'ask first'] as $value => $label)<option value="{{ $value }}"
                @selected((string) $editor->choices->form->spec->ifExists?->value === $value)>{{ $label }}</option>@endforeach</select>
                </div>
            <div class="choice"><label for="place">Place</label><select id="place" name="place"><option value="">as the order says</option>
                <option value="beside" @selected($editor->choices->form->spec->place === 'beside')>beside each source</option></select>
                </div>
        </div>
        <div class="choices choices-made">
            <div class="choice choice-name"><label for="name">Name</label><input id="name" name="name" type="text"
                value="{{ $editor->choices->form->name() }}" spellcheck="false"><p class="note">{{ '{stem}' }} is the original name</p>
                </div>
            @include('orders.name-words', ['for' => 'name', 'form' => $editor->choices->form])
        </div>
        @include('presets.try')
        @if($editor->known->isOwn)<p><button class="act" type="submit">Keep the changes</button></p>@endif
    </form>
    @if(! $editor->known->isOwn)<form method="post" action="{{ route('preset.copy', [$editor->kind, $editor->known->what->name])
        }}">@csrf<button class="act" type="submit">Copy it, to change it</button></form>@endif
@endsection
