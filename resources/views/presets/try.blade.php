<section class="try" id="try" aria-labelledby="try-title" aria-live="polite">
    <h2 id="try-title">What would come of a source</h2>
    @if($editor->sources->isEmpty())
        <p class="quiet">As soon as there is a <a href="{{ route('sources') }}">source</a>, it can be tried here.</p>
    @else
        <label for="try-source">Tried on</label>
        <select id="try-source" name="try">@foreach($editor->sources as $source)<option value="{{ $source->id }}"
            @selected($source->id === $editor->chosen)>{{ $source->heading() }}</option>@endforeach</select>
        @if($editor->refusal !== '')<p class="fault">{{ $editor->refusal }}</p>@endif
        @foreach($editor->choices->planned as $one)
            <p class="num-line"><strong>{{ $say->bytes($one->predictedBytes()) }}</strong> {{ $say->against($one->predictedBytes(),
                $one->soundBytes) }} · {{ $one->measure() }}</p>
            <p>@include('parts.sign', ['action' => $one->plan->isKept() ? 'kept' : 'remade'])<span
                class="steps">{{ implode(' · ', $one->steps()) }}</span></p>
        @endforeach
    @endif
</section>
