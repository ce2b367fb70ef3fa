@use('App\Values\Humanize')
<article class="delivery delivery-{{ $delivery->state->value }}" id="delivery-{{ $delivery->id }}" data-state="{{ $delivery->state->value }}" @if($outside) hx-swap-oob="true" @endif>
    <div class="delivery-line">
        <div class="delivery-name">
            <h3>{{ $delivery->name }}</h3>
            <span class="under">from {{ $delivery->source_name }}</span>
        </div>
        <div>@include('parts.sign', ['action' => $delivery->action])</div>
        <div class="delivery-state">
            @switch($delivery->state->value)
                @case('making')
                    <progress max="100" value="{{ $delivery->percent() }}" aria-label="{{ $delivery->doing() }} {{ $delivery->name }}">{{ $delivery->percent() }} %</progress>
                    <span class="num-line">{{ $delivery->phase === 'making' ? $delivery->percent().' %' : mb_strtolower($delivery->doing()) }}@if($delivery->speed) · {{ number_format($delivery->speed, 0) }} × real time · {{ Humanize::left($delivery->secondsLeft()) }}@endif</span>
                    @break
                @case('done')
                    <span class="num-line"><strong>{{ Humanize::bytes($delivery->receipt['bytes'] ?? 0) }}</strong> <span class="quiet">{{ Humanize::against((int) ($delivery->receipt['bytes'] ?? 0), $delivery->source_bytes) }}</span> · {{ Humanize::clock($delivery->samples / $delivery->rate) }}</span>
                    @break
                @case('failed')
                    <p class="fault">{{ $delivery->error_says }}</p>
                    @break
                @default
                    <span class="quiet">{{ $delivery->state->label() }}</span>
            @endswitch
        </div>
        <div class="delivery-acts">
            @if($delivery->state->isOpen())
                <button id="act-{{ $delivery->id }}" class="act act-quiet" hx-post="{{ route('delivery.cancel', $delivery) }}" hx-target="#delivery-{{ $delivery->id }}" hx-swap="outerHTML" aria-label="{{ $delivery->cancelling ? 'cancelling' : 'Cancel' }} {{ $delivery->name }}">{{ $delivery->cancelling ? 'cancelling' : 'Cancel' }}</button>
            @elseif($delivery->state->canBeRetried())
                <button id="act-{{ $delivery->id }}" class="act act-quiet" hx-post="{{ route('delivery.retry', $delivery) }}" hx-target="#delivery-{{ $delivery->id }}" hx-swap="outerHTML" aria-label="Try again: {{ $delivery->name }}">Try again</button>
            @elseif($delivery->isDone())
                <a class="act" href="{{ route('delivery.file', $delivery) }}" download aria-label="Download {{ $delivery->name }}">Download</a>
            @endif
        </div>
    </div>
    @if($delivery->isDone())
        <details class="receipt">
            <summary>Hear it, and its receipt</summary>
            <div class="receipt-body">
                <div>
                @if($delivery->isFilm())<video controls preload="none" src="{{ route('delivery.media', $delivery) }}" aria-label="Play {{ $delivery->name }}"></video>@endif
                @foreach($delivery->heard() as $heard)
                    <div class="hear"><span class="label" id="hear-{{ $delivery->id }}-{{ $loop->index }}">{{ $heard->title }}</span>
                        <audio controls preload="none" aria-labelledby="hear-{{ $delivery->id }}-{{ $loop->index }}">@if($heard->media !== '')<source src="{{ $heard->media }}" type="{{ $heard->type }}">@endif<source src="{{ $heard->decoded }}" type="audio/wav"></audio></div>
                @endforeach
                @if(! $delivery->isFilm())
                    <div class="before-after">
                        @foreach(['before' => 'Before', 'after' => 'After'] as $side => $title)
                            <section>
                                <h4>{{ $title }}</h4>
                                <img loading="lazy" src="{{ route('delivery.ribbon', [$delivery, $side]) }}" alt="Ribbon of the {{ $side === 'before' ? 'source' : 'result' }}">
                                @if($delivery->levelFigures($side) !== [])
                                    <table>@foreach($delivery->levelFigures($side) as $name => $figure)<tr><th>{{ $name }}</th><td>{{ $figure }}</td></tr>@endforeach</table>
                                @endif
                            </section>
                        @endforeach
                    </div>
                @endif
                </div>
                <dl class="plain-facts">
                    @if(isset($delivery->receipt['level']))<div><dt>Level set</dt><dd>{{ $delivery->levelSaid() }}</dd></div>@endif
                    @foreach(count($delivery->receipt['sounds'] ?? []) > 1 ? $delivery->receipt['sounds'] : [] as $sound)
                        <div><dt>Sound track {{ $loop->iteration }}</dt><dd>{{ $sound['form'] }}, {{ $sound['layout'] }}, {{ number_format($sound['samples']) }} samples at {{ Humanize::rate($sound['rate']) }}, {{ $sound['action'] }} from track {{ $sound['track'] }}@if($sound['peak_after'] !== null); peak {{ Humanize::decibels($sound['peak_before']) }} before, {{ Humanize::decibels($sound['peak_after']) }} after @endif</dd></div>
                    @endforeach
                    @if($delivery->isSilent())<div><dt>Sound</dt><dd>none; the picture lasts {{ Humanize::clock($delivery->samples / $delivery->rate) }}</dd></div>
                    @else<div><dt>Samples</dt><dd>{{ number_format($delivery->receipt['samples']) }} at {{ Humanize::rate($delivery->receipt['rate']) }}, {{ $delivery->receipt['layout'] }}</dd></div>
                    <div><dt>Form</dt><dd>{{ $delivery->receipt['form'] }}</dd></div>@endif
                    <div><dt>Size</dt><dd>{{ number_format($delivery->receipt['bytes']) }} bytes; {{ number_format($delivery->receipt['source_bytes']) }} in the source</dd></div>
                    @if($delivery->isSilent())
                    @elseif(! $delivery->wasMeasured())
                        <div><dt>Level</dt><dd>that of the source: nothing was decoded for it</dd></div>
                    @elseif(! isset($delivery->receipt['level']))
                        <div><dt>Level before</dt><dd>peak {{ Humanize::decibels($delivery->receipt['peak_before']) }}, RMS {{ Humanize::decibels($delivery->receipt['rms_before']) }}</dd></div>
                        <div><dt>Level after</dt><dd>peak {{ Humanize::decibels($delivery->receipt['peak_after']) }}, RMS {{ Humanize::decibels($delivery->receipt['rms_after']) }}</dd></div>
                    @endif
                    <div><dt>Verified</dt><dd>{{ $delivery->receipt['identical'] ? 'read back; every sample is the one that was meant' : 'read back and decoded; length, layout and level agree' }}</dd></div>
                    <div><dt>Made</dt><dd>{{ $delivery->speed ? number_format($delivery->speed, 0).' × real time' : '' }}; {{ implode(', ', $delivery->plan['steps']) }}</dd></div>
                    <div><dt>Checksum</dt><dd><code>{{ $delivery->receipt['checksum'] }}</code></dd></div>
                    <div><dt>Place</dt><dd><code>{{ $delivery->path }}</code></dd></div>
                    @foreach($delivery->receipt['notes'] as $note)<div><dt>Note</dt><dd>{{ $note }}</dd></div>@endforeach
                </dl>
            </div>
        </details>
    @endif
</article>
