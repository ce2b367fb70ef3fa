<div class="foot foot-sheet" id="foot" hx-swap-oob="morph">
    <p class="num-line">
        {{ number_format($sheet->totals->files) }} {{ $sheet->totals->files === 1 ? 'file' : 'files' }} · {{
            $say->clock($sheet->totals->seconds) }} · <strong>{{ $say->bytes($sheet->totals->bytes) }}</strong> {{
            $sheet->totals->soundBytes > 0 ? 'from '.$say->bytes($sheet->totals->soundBytes).($sheet->choices->form->video() ? '' :
            ' of sound') : '' }}
        @if($sheet->totals->free !== null)<span @class(['fault' => ! $sheet->totals->fits()])>{{ $sheet->totals->fits() ?
            '· '.$say->bytes($sheet->totals->free).' free' : 'but only '.$say->bytes($sheet->totals->free).' are free' }}</span>@endif
        @if($sheet->totals->takes !== null) · about {{ $say->clock(max(0.1, $sheet->totals->takes)) }} to make @endif
        @if($sheet->totals->stopped > 0) · <span class="fault">{{ $sheet->totals->stopped }} cannot be made</span>@endif
        @if($sheet->totals->right > 0) · {{ $sheet->totals->right }} right already @endif
    </p>
    <label class="existing" for="existing">If the name is taken
        <select id="existing" name="existing" form="sheet">
            @foreach(['number' => 'number it', 'replace' => 'replace it', 'skip' => 'leave it out', 'ask' => 'ask me first'] as $value =>
                $label)<option value="{{ $value }}" @selected($sheet->choices->form->ifExists()->value === $value)>{{ $label }}</option>
                @endforeach
        </select>
    </label>
    @if($sheet->totals->files > 1)
        <label class="existing" for="on_failure">If one fails
            <select id="on_failure" name="on_failure" form="sheet">@foreach($offer->onFailure() as $one)<option value="{{ $one->value }}"
                @selected($sheet->order->on_failure === $one)>{{ $one->label() }}</option>@endforeach</select>
        </label>
    @endif
    <label class="existing" for="care">The sources
        <select id="care" name="care" form="sheet">@foreach($offer->cares() as $one)<option value="{{ $one->value }}"
            @selected($sheet->order->care === $one)>{{ $one->label() }}</option>@endforeach</select>
    </label>
    <form method="post" action="{{ route('order.place', $sheet->order) }}" class="place-form" data-place>
        @csrf
        <input type="hidden" name="revision" value="{{ $sheet->order->revision }}">
        <button class="act act-big" type="submit" id="make" @disabled($sheet->totals->files === 0)>Make {{
            number_format($sheet->totals->files) }} {{ $sheet->totals->files === 1 ? 'file' : 'files' }}</button>
    </form>
</div>
