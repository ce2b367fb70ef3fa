@use('App\Values\Humanize')
<article class="result result-{{ $result->state->value }}" id="result-{{ $result->id }}" data-state="{{ $result->state->value }}" @if($outside) hx-swap-oob="true" @endif>
    <div class="result-line">
        <div class="result-name">
            <input type="checkbox" form="many" name="results[]" value="{{ $result->id }}" id="result-mark-{{ $result->id }}" aria-label="Mark {{ $result->name }}">
            <h3>{{ $result->name }}</h3>
            <span class="under">from {{ $result->source_name }}</span>
        </div>
        <div>@include('parts.sign', ['action' => $result->action])</div>
        <div class="result-state">
            @switch($result->state->value)
                @case('making')
                    <progress max="100" value="{{ $result->percent() }}" aria-label="{{ $result->doing() }} {{ $result->name }}">{{ $result->percent() }} %</progress>
                    <span class="num-line">{{ $result->phase === 'making' ? $result->percent().' %' : mb_strtolower($result->doing()) }}@if($result->speed) · {{ number_format($result->speed, 0) }} × real time · {{ Humanize::left($result->secondsLeft()) }}@endif</span>
                    @break
                @case('done')
                    <span class="num-line"><strong>{{ Humanize::bytes($result->bytes()) }}</strong> <span class="quiet">{{ Humanize::against($result->bytes(), $result->source_bytes) }}</span> · {{ Humanize::clock($result->samples / $result->rate) }}</span>
                    @break
                @case('failed')
                    <p class="fault">{{ $result->error_says }}@if($result->log() !== '') <a href="{{ route('result.log', $result) }}">What its process said</a>@endif</p>
                    @break
                @default
                    <span class="quiet">{{ $result->waitsIn() }}</span>
            @endswitch
        </div>
        <div class="result-acts">
            @if($result->state->isOpen() && ! $result->cancelling)
                @foreach($result->held ? ['go-on' => 'Go on'] : ['hold' => 'Pause', ...($result->state->value === 'waiting' ? ['first' => 'Next'] : [])] as $do => $label)<button id="{{ $do }}-{{ $result->id }}" class="link" hx-post="{{ route('result.work', $result) }}" hx-vals='{"do": "{{ $do }}"}' hx-target="#result-{{ $result->id }}" hx-swap="outerHTML" aria-label="{{ $label }}: {{ $result->name }}">{{ $label }}</button>@endforeach
            @endif
            @if($result->state->isOpen())
                <button id="act-{{ $result->id }}" class="act act-quiet" hx-post="{{ route('result.cancel', $result) }}" hx-target="#result-{{ $result->id }}" hx-swap="outerHTML" aria-label="{{ $result->cancelling ? 'cancelling' : 'Cancel' }} {{ $result->name }}">{{ $result->cancelling ? 'cancelling' : 'Cancel' }}</button>
            @elseif($result->state->canBeRetried())
                <button id="act-{{ $result->id }}" class="act act-quiet" hx-post="{{ route('result.retry', $result) }}" hx-target="#result-{{ $result->id }}" hx-swap="outerHTML" aria-label="Try again: {{ $result->name }}">Try again</button>
            @elseif($result->isDone())
                @if($result->binned)<span class="quiet">in the bin</span>@else<a class="act" href="{{ route('result.file', $result) }}" download aria-label="Download {{ $result->name }}">Download</a>@endif
            @endif
        </div>
    </div>
    @if($result->isDone() && $result->receiptFacts() !== null)
        <details class="receipt">
            <summary>Hear it, and its receipt</summary>
            <div class="receipt-body">
                <div>
                @if($result->isVideo())<video controls preload="none" src="{{ route('result.media', $result) }}" aria-label="Play {{ $result->name }}"></video>@endif
                @foreach($result->playable() as $sound)
                    <div class="hear"><span class="label" id="hear-{{ $result->id }}-{{ $loop->index }}">{{ $sound->title }}</span>
                        <audio controls preload="none" aria-labelledby="hear-{{ $result->id }}-{{ $loop->index }}">@if($sound->media !== '')<source src="{{ $sound->media }}" type="{{ $sound->type }}">@endif<source src="{{ $sound->decoded }}" type="audio/wav"></audio></div>
                @endforeach
                @if(! $result->isVideo())
                    <div class="before-after">
                        @foreach(['before' => 'Before', 'after' => 'After'] as $side => $title)
                            <section>
                                <h4>{{ $title }}</h4>
                                <div class="waveform-picture" hx-get="{{ route('result.picture', [$result, $side]) }}" hx-trigger="toggle once from:closest details"></div>
                                @if($result->receiptFacts()->figures($side) !== [])
                                    <table>@foreach($result->receiptFacts()->figures($side) as $name => $figure)<tr><th>{{ $name }}</th><td>{{ $figure }}</td></tr>@endforeach</table>
                                @endif
                            </section>
                        @endforeach
                    </div>
                @endif
                </div>
                <dl class="plain-facts">
                    @foreach($result->receiptFacts()->lines() as [$name, $fact])<div><dt>{{ $name }}</dt><dd>{{ $fact }}</dd></div>
                    @endforeach
                    <div><dt>Checksum</dt><dd><code>{{ $result->receiptFacts()->checksum() }}</code></dd></div>
                    <div><dt>Place</dt><dd><code>{{ $result->path }}</code> <button type="button" class="link" data-copy="{{ $result->path }}" aria-label="copy the path of {{ $result->name }}">copy the path</button> <a href="{{ route('results', ['in' => dirname((string) $result->path)]) }}">what lies there</a></dd></div>
                    <div><dt>Once more</dt><dd><button type="submit" class="link" formaction="{{ route('result.again', $result) }}" form="many">ask the same of other sources</button></dd></div>
                </dl>
            </div>
        </details>
    @endif
</article>
