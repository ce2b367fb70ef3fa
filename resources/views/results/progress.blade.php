<div class="order-progress" id="progress-{{ $order->id }}" @if($outside) hx-swap-oob="true" @endif>
    @if($own->open > 0)<progress max="100" value="{{ $own->percent() }}"
        aria-label="{{ $order->heading() }} as a whole">{{ $own->percent() }} %</progress>@endif
    <span class="num-line">{{ $own->says() }}</span>
    @if($own->done > 1)<button class="link" type="submit" form="many" name="do" value="download" data-order="{{ $order->id }}"
        aria-label="all as one ZIP: {{ $order->heading() }}">all as one ZIP</button>@endif
    @if($own->failed > 0)<button class="link" type="submit" form="many" name="do" value="retry" data-order="{{ $order->id }}"
        aria-label="try all again that failed: {{ $order->heading() }}">try all again that failed</button>@endif
    @if($own->open > 1)<button class="link" type="submit" form="many" name="do" value="cancel" data-order="{{ $order->id }}"
        aria-label="cancel what is not done: {{ $order->heading() }}">cancel what is not done</button>@endif
    @if($own->open > 0)
        @if($order->held)
            <span class="held-says">{{ $order->held_by === 'failure' ? 'One failed, so the rest waits for you:' : 'paused' }}</span>
            <button class="link" type="submit" form="work-{{ $order->id }}" name="do" value="go-on"
                aria-label="go on with {{ $order->heading() }}">go on</button>
        @else<button class="link" type="submit" form="work-{{ $order->id }}" name="do" value="hold"
            aria-label="pause {{ $order->heading() }}">pause</button>@endif
        <button class="link" type="submit" form="work-{{ $order->id }}" name="do" value="first"
            aria-label="{{ $order->heading() }} before all others">before all others</button>
        <button class="link" type="submit" form="work-{{ $order->id }}" name="do" value="last"
            aria-label="{{ $order->heading() }} after all others">after all others</button>
    @endif
    @if($own->copies > 0 || $order->care->clears())
        <p class="quiet">
            @if($own->copies > 0)
                {{ $own->copies === 1 ? 'One safe copy' : number_format($own->copies).' safe copies' }}, read again, with
                {{ $own->copies === 1 ? 'its sum' : 'their sums' }}: <code>{{ $own->copiesFolder }}</code>.
            @endif
            @if($order->care->clears())
                {{ $order->cleared_at === null ? 'Its sources go into the bin, each once all that is made of it is verified.'
                    : 'Its sources were seen to; what could be moved is in the bin.' }}
                <a href="{{ route('bin') }}">The bin</a>
            @endif
        </p>
    @endif
</div>
