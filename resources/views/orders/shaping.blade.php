@use('App\Values\Humanize')
{{-- Stands outside of what is renewed: nobody loses their place in the map, and nothing typed is lost. --}}
<details class="shaping" @if($sheet->form->labels() !== '' || $sheet->form->pieces !== [] || ! isset(Octavox\Core\Sound\ChannelMap::WORDS[$sheet->form->layout()])) open @endif>
    <summary>Channel map, labels, pieces, fades</summary>
    <div class="shaping-body">
        @if($sheet->mapped() !== [])
            <section class="map" data-map data-letters="{{ json_encode($sheet->mapped()[0]->layout->names()) }}" data-words="{{ json_encode($sheet->words()) }}" aria-labelledby="map-title">
                <h2 id="map-title">Channel map</h2>
                <div data-map-drawing></div>
                <p class="note">Press a channel on the left, then one on the right: they are joined, or parted. A band pressed is louder with + and softer with −, flipped with F, parted with Delete.</p>
                <div class="map-acts">
                    <button type="button" class="act act-quiet" data-map-channel>Add a channel</button>
                    <button type="button" class="act act-quiet" data-map-file>Add a {{ $sheet->form->video() ? 'track' : 'file' }}</button>
                    <button type="button" class="act act-quiet" data-map-less>Take the last away</button>
                    <output class="num-line" data-map-says aria-live="polite"></output>
                </div>
                @if($sheet->unlike() !== [])<p class="note">Drawn for {{ $sheet->mapped()[0]->source->name }}. With other channels: {{ implode(', ', $sheet->unlike()) }}.</p>@endif
            </section>
        @endif
        <section class="shaping-fields">
            <div class="choice choice-wide">
                <label for="labels">Labels of the channels</label>
                <input id="labels" name="labels" type="text" value="{{ $sheet->form->labels() }}" placeholder="lav, boom" autocomplete="off">
                <p class="note">for names and tracks, with commas between</p>
            </div>
            <div class="choice">
                <label for="fade_in">Fade in</label>
                <input id="fade_in" name="fade_in" type="text" size="7" value="{{ $sheet->form->sound()->fadeIn }}" placeholder="0.0" autocomplete="off">
                <p class="note">seconds</p>
            </div>
            <div class="choice">
                <label for="fade_out">Fade out</label>
                <input id="fade_out" name="fade_out" type="text" size="7" value="{{ $sheet->form->sound()->fadeOut }}" placeholder="0.0" autocomplete="off">
                <p class="note">seconds</p>
            </div>
            @foreach($sheet->sources() as $source)
                <div class="choice choice-wide"><label for="pieces-{{ $source->id }}">Pieces of {{ $source->name }}</label><input id="pieces-{{ $source->id }}" type="text" data-pieces="{{ $source->id }}" value="{{ $sheet->form->pieces[$source->id] ?? '' }}" placeholder="all of it">
<p class="note">@if($loop->first)like 0:05-0:10, 1:00-end; or @endif<a href="/sources/{{ $source->id }}#listen">mark them on the waveforms</a></p></div>
            @endforeach
            <input type="hidden" name="pieces" value="{{ $sheet->form->query()['pieces'] ?? '' }}" data-pieces-all>
            <div class="choice">
                <span class="label">Several pieces</span>
                <label class="tickline"><input type="checkbox" name="apart" value="1" @checked($sheet->form->sound()->separate === true)> a file of each</label>
            </div>
            <div class="choice">
                <span class="label">Edges of a piece</span>
                <label class="tickline"><input type="checkbox" name="exact" value="1" @checked($sheet->form->sound()->exact === true)> exact, even if encoded anew</label>
            </div>
        </section>
    </div>
</details>
