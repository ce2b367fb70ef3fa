@use('Octavox\Core\Name\NamePattern')
<details class="name-words" data-words-for="{{ $for }}">
    <summary id="{{ $for }}-words">Words and folders to put in</summary>
    <p class="words">
        @foreach(NamePattern::FIELDS as $field => $meaning)<button type="button" class="chip"
            data-word="{{ '{'.$field.'}' }}">{{ $meaning }}</button>@endforeach
    </p>
    <p class="words"><span class="quiet">Folders first:</span>
        @foreach(['{tree}/' => 'as the sources lie', '{today} {order}/' => 'one of this day and order',
            '{artist|"Unknown artist"}/{album|"Unknown album"}/[{track:2} ]' => 'artist and album'] as $folders => $meaning)<button
            type="button" class="chip" data-word="{{ $folders }}" data-word-first>{{ $meaning }}</button>@endforeach
        <button type="button" class="chip" data-word="{stem}" data-word-alone>only the original name</button>
    </p>
    <p class="note">A bar gives the next word where one is empty: <code>{title|stem}</code>. What stands in brackets goes where its word is
        empty: <code>[{track:2} ]{title}</code>. A slash begins a folder.</p>
    <p class="words signs">
        @foreach(['name_signs' => ['Emoji and control characters in names', $form->spec->nameSigns], 'tag_signs' => ['in tags',
            $form->spec->tagSigns]] as $field => [$label, $chosen])
            <label>{{ $label }} <select name="{{ $field }}">@foreach(['keep' => 'kept', 'remove' => 'removed', 'spell' =>
                'spelled out'] as $value => $word)<option value="{{ $value }}"
                @selected(($chosen?->value ?? 'keep') === $value)>{{ $word }}</option>@endforeach</select></label>
        @endforeach
    </p>
</details>
