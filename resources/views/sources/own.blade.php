<section aria-labelledby="own-title">
    <h2 id="own-title">Your own words</h2>
    @if($source->given_name === '' && $say->isEmpty($source->name))<p class="finding finding-note">Its name says nothing about it. Give it
        another, and results use that; keep it, and you are not asked again.</p>@endif
    <form class="own-words" method="post" action="{{ route('source.update', $source) }}">
        @csrf @method('patch')
        <div class="choice choice-wide"><label for="own-name">Called</label><input id="own-name" name="name" type="text" maxlength="200"
            value="{{ $source->given_name === '' && $say->isEmpty($source->name) && $source->folder !== '' ? basename($source->folder) :
            $source->heading() }}" placeholder="{{ $source->name }}"><p class="note">results are named after it</p></div>
        <div class="choice"><label for="own-group">Group</label><input id="own-group" name="group" type="text" maxlength="120"
            value="{{ $source->group?->title }}" placeholder="none"></div>
        <div class="choice choice-wide"><label for="own-note">Note</label><textarea id="own-note" name="note" rows="2"
            maxlength="4000">{{ $source->note }}</textarea></div>
        <button class="act act-quiet" type="submit">Keep it</button>
    </form>
    @if($source->companions->isNotEmpty())
        <p>It stands for the whole of what was recorded; beside it there {{ $source->companions->count() === 1 ? 'is' : 'are' }}:</p>
        <ul @class(['is-long' => $source->companions->count() > 8])>@foreach($source->companions as $one)<li><a
            href="{{ route('source', $one) }}">{{ $one->heading() }}</a> <span
            class="quiet">{{ $one->soundTracks()->first()?->format ?? ($one->isReady() ? 'no sound' : '') }}</span></li>
            @endforeach</ul>
    @endif
</section>
