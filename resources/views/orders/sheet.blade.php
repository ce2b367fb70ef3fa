@use('App\Values\FormatMenu')
@use('Octavox\Core\Order\Quality')
@use('App\Values\Humanize')
@extends('layout')
@section('title', 'Order sheet')
@push('scripts')<script src="/assets/map.js" defer></script>@endpush
@section('content')
    <div class="title-row"><h1>Order sheet</h1><p class="lead">What came in, what happens to it, what goes out.</p>
        @if($sheet->planned !== [])<div class="title-acts"><a href="{{ route('sources') }}" data-add-sources>Add sources</a></div>@endif</div>
    @if($sheet->planned === [])
        <div class="empty">
            <p class="big">The sheet is empty.</p>
            <p>Tick what you want to work on among the <a href="{{ route('sources') }}">sources</a> and put it on the order sheet.</p>
        </div>
    @else
    <form id="sheet" method="post" action="{{ route('orders.place') }}"
          hx-get="{{ route('order') }}" hx-trigger="change, input changed delay:350ms from:#name, octavox:reshaped delay:150ms" hx-target="#ways" hx-select="#ways" hx-select-oob="#settings" hx-swap="outerHTML" hx-sync="this:replace" hx-push-url="true" hx-params="not _token,once">
        @csrf
        <input type="hidden" name="once" value="{{ bin2hex(random_bytes(16)) }}" autocomplete="off">
        <input type="hidden" name="sources" value="{{ implode(',', $sheet->form->sources) }}">
        {{-- The name stands outside of what is renewed, so that nothing typed is ever lost to an answer on its way. --}}
        <div class="choices">
            <div id="settings">
            <div class="choice">
                <label for="format">Make</label>
                <select id="format" name="format">
                    @foreach(FormatMenu::groups() as $group => $formats)
                        <optgroup label="{{ $group }}">
                            @foreach($formats as $format)<option value="{{ $format->name() }}" @selected($sheet->form->format() === $format->name())>{{ $format->label() }}</option>@endforeach
                        </optgroup>
                    @endforeach
                </select>
                <p class="note">{{ $sheet->formatNote() }}</p>
            </div>
            @if($sheet->form->video())
                <div class="choice">
                    <label for="sound">Sound</label>
                    <select id="sound" name="sound">
                        <option value="">Kept</option>
                        @foreach($sheet->videoSounds() as $format)<option value="{{ $format->name() }}" @selected($sheet->form->sound()->codec === $format->name())>{{ $format->name() === 'wav' ? 'PCM' : $format->label() }}</option>@endforeach
                    </select>
                    <p class="note">{{ $sheet->form->sound()->codec === null ? 'where the video carries it, else '.($sheet->form->encoder()->name() === 'wav' ? 'PCM' : $sheet->form->encoder()->label()) : 'all of it is made anew' }}</p>
                </div>
            @endif
            @if($sheet->form->hasQuality())
                <div class="choice">
                    <label for="quality">Quality</label>
                    <select id="quality" name="quality">
                        @foreach(Quality::offered($sheet->form->encoder()->capabilities()) as $quality)<option value="{{ $quality->value }}" @selected($sheet->form->quality() === $quality)>{{ $quality->label() }}</option>@endforeach
                    </select>
                    <p class="note">{{ $sheet->qualityNote() }}</p>
                </div>
            @elseif($sheet->form->encoder()->capabilities()->bitDepths !== [])
                <div class="choice">
                    <label for="bits">Bit depth</label>
                    <select id="bits" name="bits">
                        <option value="">As recorded</option>
                        @foreach($sheet->form->encoder()->capabilities()->bitDepths as $bits)<option value="{{ $bits }}" @selected($sheet->form->sound()->bitDepth === $bits)>{{ $bits }} bits</option>@endforeach
                    </select>
                    <p class="note">{{ $sheet->bitsNote() }}</p>
                </div>
            @endif
            @if($sheet->form->rates() !== [])
                <div class="choice">
                    <label for="rate">Rate</label>
                    <select id="rate" name="rate">
                        <option value="">As recorded</option>
                        @foreach($sheet->form->rates() as $rate)<option value="{{ $rate }}" @selected($sheet->form->sound()->rate === $rate)>{{ Humanize::rate($rate) }}</option>@endforeach
                    </select>
                    <p class="note">{{ $sheet->rateNote() }}</p>
                </div>
            @endif
            @if($sheet->tracks !== [])
                <div class="choice">
                    <label for="track">Sound track</label>
                    <select id="track" name="track">
                        @foreach($sheet->tracks as $value => $label)<option value="{{ $value }}" @selected((string) $sheet->form->sound()->tracks === (string) $value)>{{ $label }}</option>@endforeach
                    </select>
                    <p class="note">{{ $sheet->trackNote() }}</p>
                </div>
            @endif
            @if($sheet->offersLength())
                <div class="choice">
                    <label for="length">Length</label>
                    <select id="length" name="length">
                        @foreach(['sound' => 'As the sound', 'picture' => 'As the picture'] as $value => $label)<option value="{{ $value }}" @selected($sheet->form->length()->value === $value)>{{ $label }}</option>@endforeach
                    </select>
                    <p class="note">{{ $sheet->lengthNote() }}</p>
                </div>
            @endif
            <div class="choice">
                <label for="layout">Channels</label>
                <select id="layout" name="layout">
                    @foreach($sheet->layouts() as $value => $label)<option value="{{ $value }}" @selected($sheet->form->layout() === (string) $value)>{{ $label }}</option>@endforeach
                </select>
                <p class="note">{{ $sheet->layoutNote() }}</p>
            </div>
            <div class="choice @if($sheet->form->sound()->level !== null) choice-level @endif">
                <label for="level_kind">Level</label>
                <div class="level-fields">
                    <select id="level_kind" name="level_kind">
                        @foreach(['none' => 'As it is', 'lufs' => 'Loudness', 'peak' => 'Peak', 'rms' => 'RMS', 'gain' => 'Gain'] as $value => $label)<option value="{{ $value }}" @selected($sheet->form->levelFields()[0] === $value)>{{ $label }}</option>@endforeach
                    </select>
                    @if($sheet->form->sound()->level !== null)
                        <input name="level_value" id="level_value" type="text" inputmode="decimal" size="5" value="{{ $sheet->form->levelFields()[1] }}" aria-label="Level in {{ $sheet->form->levelTarget()?->kind->unit() ?? 'dB' }}"><span class="unit">{{ $sheet->form->levelTarget()?->kind->unit() }}</span>
                        @if($sheet->form->levelTarget()?->hasCeiling())<label class="ceiling">true peak at most <input name="level_ceiling" type="text" inputmode="decimal" size="4" value="{{ $sheet->form->levelTarget()->ceiling }}"> dBFS</label>@endif
                    @endif
                </div>
                @if($sheet->form->sound()->level !== null && count($sheet->sources()) > 1)<label class="tickline"><input type="checkbox" name="together" value="1" @checked($sheet->form->sound()->together === true)> one gain for all</label>@endif
                <p class="note">{{ $sheet->levelNote() }}</p>
            </div>
            </div>
            <div class="choice choice-wide">
                <label for="name">Name</label>
                <input id="name" name="name" type="text" value="{{ $sheet->form->name() }}" autocomplete="off" spellcheck="false">
                <p class="note">fields: {stem} {title} {artist} {layout} {rate} {track} {label} {piece}</p>
            </div>
        </div>
        @include('orders.shaping')

        <div id="ways">
        <div class="board" aria-label="The way of each sound">
            <div class="board-head" aria-hidden="true"><span>Came in</span><span>What happens</span><span>Goes out</span></div>
            @foreach($sheet->shown() as $one)
                @include('orders.way')
            @endforeach
            @if($sheet->hidden() > 0)
                <p class="more" hx-get="{{ $sheet->address(['from' => $sheet->next()]) }}" hx-trigger="revealed" hx-select=".board > .way, .board > .more" hx-target="this" hx-swap="outerHTML" hx-select-oob="" hx-push-url="false"><a href="{{ $sheet->address(['from' => $sheet->next()]) }}">{{ $sheet->hidden() === 1 ? 'One more' : number_format($sheet->hidden()).' more' }}</a></p>
            @endif
        </div>

        @foreach($sheet->form->query() as $name => $value)<input type="hidden" form="take-off" name="{{ $name }}" value="{{ $value }}">@endforeach

        @if($sheet->isWaiting())<div hx-get="{{ $sheet->address() }}" hx-trigger="load delay:900ms" hx-target="#ways" hx-select="#ways" hx-select-oob="" hx-swap="outerHTML" hx-push-url="false"></div>@endif
        <div class="foot foot-sheet">
            <p class="num-line">
                {{ $sheet->count }} {{ $sheet->count === 1 ? 'file' : 'files' }} · {{ Humanize::clock($sheet->seconds) }} · <strong>{{ Humanize::bytes($sheet->bytes) }}</strong> {{ $sheet->soundBytes > 0 ? 'from '.Humanize::bytes($sheet->soundBytes).($sheet->form->video() ? '' : ' of sound') : '' }}
                @if($sheet->takes !== null) · about {{ Humanize::clock(max(0.1, $sheet->takes)) }} to make @endif
            </p>
            <label class="existing" for="existing">If the name is taken
                <select id="existing" name="existing">
                    @foreach(['number' => 'number it', 'replace' => 'replace it', 'skip' => 'leave it out'] as $value => $label)<option value="{{ $value }}" @selected($sheet->form->ifExists()->value === $value)>{{ $label }}</option>@endforeach
                </select>
            </label>
            <button class="act act-big" type="submit" @disabled($sheet->count === 0)>Make {{ $sheet->count }} {{ $sheet->count === 1 ? 'file' : 'files' }}</button>
        </div>
        </div>
    </form>
    <form id="take-off" method="get" action="{{ route('order') }}"></form>
    @endif
@endsection
