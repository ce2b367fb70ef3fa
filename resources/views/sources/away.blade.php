<form method="post" action="{{ route('source.remove', $source) }}" class="away" data-away="{{ $source->id }}">
    @csrf @method('delete')
    <button class="act act-quiet" type="submit">Take off the list</button>
    <span class="quiet">{{ $source->origin === 'shelf' ? 'The file stays on its shelf; results stay too.' :
        'Its copy here goes into the bin, from which it can be restored; results stay.' }}</span>
</form>
