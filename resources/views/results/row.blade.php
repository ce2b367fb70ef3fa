<article class="result result-{{ $result->state->value }}" id="result-{{ $result->id }}" data-state="{{ $result->state->value }}"
    @if($outside) hx-swap-oob="true" @endif>
    <div class="result-line">
        <div class="result-name">
            <input type="checkbox" form="many" name="results[]" value="{{ $result->id }}" id="result-mark-{{ $result->id }}"
                aria-label="Mark {{ $result->name }}">
            <h3>{{ $result->name }}</h3>
            <span class="under">from {{ $result->source_name }}</span>
        </div>
        <div>@include('parts.sign', ['action' => $result->action])</div>
        <div class="result-state">
            @switch($result->state->value)
                @case('making')
                    <progress max="100" value="{{ $result->percent() }}"
                        aria-label="{{ $result->doing() }} {{ $result->name }}">{{ $result->percent() }} %</progress>
                    <span class="num-line">{{ $result->phase === 'making' ? $result->percent().' %' : mb_strtolower($result->doing())
                        }}@if($result->speed) · {{ number_format($result->speed, 0) }} × real time · {{ $say->left($result->secondsLeft())
                        }}@endif</span>
                    @break
                @case('done')
                    <span class="num-line"><strong>{{ $say->bytes($result->bytes) }}</strong> <span
                        class="quiet">{{ $say->against($result->bytes, $result->source_bytes) }}</span> · {{ $say->clock($result->samples /
                        $result->rate) }}</span>
                    @break
                @case('failed')
                    <p class="fault">{{ $result->error_says }}@if($result->log() !== '') <a
                        href="{{ route('result.log', $result) }}">What its process said</a>@endif</p>
                    @break
                @default
                    <span class="quiet">{{ $result->waitsIn($isAllHeld) }}</span>
            @endswitch
        </div>
        <div class="result-acts">
            @if($result->state->isOpen() && ! $result->cancelling)
                @foreach($result->workActs() as $do => $label)<button id="{{ $do }}-{{ $result->id }}" class="link"
                    hx-post="{{ route('result.work', $result) }}" hx-vals='{"do": "{{ $do }}"}' hx-target="#result-{{ $result->id }}"
                    hx-swap="outerHTML" aria-label="{{ $label }}: {{ $result->name }}">{{ $label }}</button>@endforeach
            @endif
            @if($result->state->isOpen())
                <button id="act-{{ $result->id }}" class="act act-quiet" hx-post="{{ route('result.cancel', $result) }}"
                    hx-target="#result-{{ $result->id }}" hx-swap="outerHTML"
                    aria-label="{{ $result->cancelling ? 'cancelling' : 'Cancel' }} {{ $result->name }}">{{ $result->cancelling ?
                    'cancelling' : 'Cancel' }}</button>
            @elseif($result->state->canBeRetried())
                <button id="act-{{ $result->id }}" class="act act-quiet" hx-post="{{ route('result.retry', $result) }}"
                    hx-target="#result-{{ $result->id }}" hx-swap="outerHTML" aria-label="Try again: {{ $result->name }}">Try again</button>
            @elseif($result->isDone())
                @if($result->binned)<span class="quiet">in the bin</span>@else<a class="act" href="{{ route('result.file', $result) }}"
                    download aria-label="Download {{ $result->name }}">Download</a>@endif
            @endif
        </div>
    </div>
    @if($result->isDone() && $result->receipt !== null)
        <details class="receipt">
            <summary>Hear it, and its receipt</summary>
            <div class="receipt-place" hx-get="{{ route('result.receipt', $result) }}" hx-trigger="toggle once from:closest details"><p
                class="quiet">A moment …</p></div>
        </details>
    @endif
</article>
