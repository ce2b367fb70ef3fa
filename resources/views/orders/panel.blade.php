@use('App\Orders\Values\Scope')
<div class="panel" id="panel-{{ $panel->line->line->id }}" data-panel="{{ $panel->line->line->id }}">
@include('orders.way')
<form class="panel-form" id="form-{{ $panel->line->line->id }}" hx-patch="{{ route('line.update', [$panel->order, $panel->line->line]) }}"
    hx-trigger="change delay:10ms, octavox:reshaped delay:150ms" hx-swap="none" hx-sync="this:queue last" data-renews autocomplete="off">
    @if($panel->lines > 1)
        <fieldset class="scope" id="scope-{{ $panel->line->line->id }}">
            <legend>What is changed here is for</legend>
            @foreach(['line' => 'this line', 'marked' => 'the marked ones', 'all' => 'all lines'] as $value => $label)<label><input
                type="radio" name="scope" value="{{ $value }}" id="scope-{{ $value }}-{{ $panel->line->line->id }}" data-always
                    @checked($value === 'line')> {{ $label }}</label>@endforeach
        </fieldset>
    @endif
    @if($panel->hasFields)
        <div class="choices choices-line">@include('orders.fields', ['choices' => $panel->choices, 'prefix' =>
            'line-'.$panel->line->line->id.'-', 'together' => false])
            <div class="choice choice-wide">
                <label for="line-{{ $panel->line->line->id }}-name">Name of this one</label>
                <input id="line-{{ $panel->line->line->id }}-name" name="name" type="text" value="{{ $panel->choices->form->name() }}"
                    spellcheck="false">
            </div>
        </div>
    @else
        @if($panel->lines > 1)<p><button type="button" class="act act-quiet" data-all-fields>Other settings for this line</button></p>@endif
        <select name="layout" hidden aria-hidden="true" tabindex="-1">@foreach($panel->choices->layouts() as $value => $label)<option
            value="{{ $value }}" @selected($panel->choices->form->layout() === (string) $value)>{{ $label }}</option>@endforeach</select>
    @endif
    <div class="shaping-body" id="shaping-{{ $panel->line->line->id }}">
        @if($panel->layout() !== null)
            <section class="map" id="map-{{ $panel->line->line->id }}" data-map data-letters="{{ json_encode($panel->layout()->names()) }}"
                data-words="{{ json_encode($panel->words()) }}" aria-labelledby="map-title-{{ $panel->line->line->id }}">
                <h3 id="map-title-{{ $panel->line->line->id }}">Channel map</h3>
                <div data-map-drawing></div>
                <p class="note">Press a channel on the left, then one on the right: they are joined, or parted. A band pressed is louder
                    with + and softer with −, flipped with F, parted with Delete.</p>
                <div class="map-acts">
                    <button type="button" class="act act-quiet" data-map-channel>Add a channel</button>
                    <button type="button" class="act act-quiet" data-map-file>Add a {{ $panel->choices->form->video() ? 'track' : 'file'
                        }}</button>
                    <button type="button" class="act act-quiet" data-map-less>Take the last away</button>
                    <output class="num-line" data-map-says aria-live="polite"></output>
                </div>
            </section>
        @endif
        <section class="shaping-fields">
            <div class="choice choice-wide">
                <label for="labels-{{ $panel->line->line->id }}">Labels of the channels</label>
                <input id="labels-{{ $panel->line->line->id }}" name="labels" type="text" value="{{ $panel->choices->form->labels() }}"
                    placeholder="lav, boom">
                <p class="note">for names and tracks, with commas between</p>
            </div>
            <div class="choice choice-wide">
                <label for="pieces-{{ $panel->line->line->id }}">Pieces</label>
                <input id="pieces-{{ $panel->line->line->id }}" name="pieces" type="text"
                    value="{{ $panel->choices->form->sound()->pieces }}" placeholder="all of it"
                    data-pieces="{{ $panel->line->source->id }}">
                <p class="note">like 0:05-0:10, 1:00-end; or <a href="/sources/{{ $panel->line->source->id
                    }}#listen">mark them on the waveforms</a></p>
            </div>
            <div class="choice">
                <label for="fade_in-{{ $panel->line->line->id }}">Fade in</label>
                <input id="fade_in-{{ $panel->line->line->id }}" name="fade_in" type="text" size="7"
                    value="{{ $panel->choices->form->sound()->fadeIn }}" placeholder="0.0">
                <p class="note">seconds</p>
            </div>
            <div class="choice">
                <label for="fade_out-{{ $panel->line->line->id }}">Fade out</label>
                <input id="fade_out-{{ $panel->line->line->id }}" name="fade_out" type="text" size="7"
                    value="{{ $panel->choices->form->sound()->fadeOut }}" placeholder="0.0">
                <p class="note">seconds</p>
            </div>
            <div class="choice">
                <span class="label">Several pieces</span>
                <label class="tickline"><input type="checkbox" id="apart-{{ $panel->line->line->id }}" name="apart" value="1"
                    @checked($panel->choices->form->sound()->separate === true)> a file of each</label>
            </div>
            <div class="choice">
                <span class="label">Edges of a piece</span>
                <label class="tickline"><input type="checkbox" id="exact-{{ $panel->line->line->id }}" name="exact" value="1"
                    @checked($panel->choices->form->sound()->exact === true)> exact, even if it must be re-encoded</label>
            </div>
        </section>
    </div>
    <details class="panel-tags" id="tags-of-{{ $panel->line->line->id }}">
        <summary>Tags of the result</summary>
        <div class="tag-fields">
            @foreach($panel->tags() as $field => $value)
                <label><span>{{ ucfirst(str_replace('_', ' ', $field)) }}</span><input type="text" name="tags[{{ $field }}]"
                    id="tag-{{ $field }}-{{ $panel->line->line->id }}"
                    value="{{ $value }}"></label>
            @endforeach
        </div>
        <p class="note">Several values are separated by semicolons; an empty field is left out of the result.</p>
    </details>
</form>
<details class="panel-tags" id="cover-of-{{ $panel->line->line->id }}">
    <summary>Cover of the result</summary>
    @include('orders.cover', ['order' => $panel->order, 'id' => $panel->line->line->id, 'line' => $panel->line->line->id, 'shown' =>
        $panel->cover()])
</details>
<p class="panel-acts">
        <button type="submit" class="act act-quiet" form="take-off-{{ $panel->line->line->id }}">Take this line off</button>
    </p>
<form id="take-off-{{ $panel->line->line->id }}" method="post" action="{{ route('order.lines.remove', $panel->order)
    }}">@csrf @method('delete')<input type="hidden" name="lines" value="{{ $panel->line->line->id }}"></form>
</div>
