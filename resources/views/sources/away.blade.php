@if($source->origin === 'shelf')
    <form method="post" action="{{ route('source.remove', $source) }}" class="away" data-away="{{ $source->id }}">
        @csrf @method('delete')
        <button class="act act-quiet" type="submit">Take off the list</button>
        <span class="quiet">The file stays on its shelf; results stay too.</span>
    </form>
@else
    <details class="away">
        <summary class="act act-quiet">Take off the list …</summary>
        <form method="post" action="{{ route('source.remove', $source) }}" data-away="{{ $source->id }}">
            @csrf @method('delete')
            <p>What was uploaded is kept here only in this copy, and it goes with the list’s line. Results stay.</p>
            <button class="act" type="submit">Delete the uploaded copy</button>
        </form>
    </details>
@endif
