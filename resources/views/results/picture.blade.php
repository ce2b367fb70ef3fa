@if($drawn)
<img src="{{ route('result.waveform', [$result, $side]) }}" alt="Waveform of the {{ $side === 'before' ? 'source' : 'result' }}">
@elseif($drawing)
<p class="quiet" role="status" hx-get="{{ route('result.picture', [$result, $side]) }}" hx-trigger="load delay:700ms"
    hx-target="closest .waveform-picture">The waveform is being drawn …</p>
@else
<p class="quiet">No waveform could be drawn.</p>
@endif
