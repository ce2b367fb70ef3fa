@extends('layout')
@section('title', $source->heading())
@push('scripts')<script type="module" src="/assets/js/player/listen.js"></script>@endpush
@section('content')
    <div class="title-row">
        <h1 class="file-name">{{ $source->heading() }}</h1>
        @if($source->folder !== '')<p class="lead">{{ $source->folder }}</p>@endif
        <div class="title-acts">
            @if($source->canBeOrdered())<a class="act" href="{{ route('order.current', ['sources' => $source->id]) }}"
                data-put>Put on the order sheet</a>@endif
        </div>
    </div>

    @if($source->state->value === 'reading')
        <p class="said" hx-get="{{ route('source', $source) }}" hx-trigger="every 900ms" hx-target="body">It is being read.</p>
    @elseif($source->state->value === 'unreadable' || $facts === null)
        <section class="finding finding-stop" id="findings">@include('parts.mark', ['level' => 'stop'])
            <p>{{ $source->error_says ?? 'What was read of it can no longer be understood; take it off the list and bring it in again.'
            }}@if($source->same_as) <a href="{{ route('source', $source->same_as) }}">Go there</a> <button class="link" type="submit"
            form="twice">Take it all the same</button>@endif @if($source->mayBeHeaderless())<a class="act act-quiet"
            href="{{ route('source.headerless', $source) }}">Try it as sound without a header</a>@endif</p></section>
        @if($source->same_as)<form id="twice" method="post" action="{{ route('source.twice', $source) }}">@csrf</form>@endif
        @include('sources.away')
    @else
        @include('sources.listen')
        <div class="facts">
            <section class="player" aria-label="Play">
                @if($source->picture && $source->discTitle() === null)
                    <video controls preload="metadata" src="{{ route('source.media', $source) }}" data-player
                        aria-label="Play {{ $source->heading() }}"></video>
                    @if($source->sounds() !== '')<p class="quiet">{{ $source->sounds() }}</p>@endif
                    <p class="quiet" data-player-fault hidden>This browser cannot show the picture as it is; its sound plays on the
                        waveforms. Make an MP4 of it to see it here.</p>
                @endif
                <dl class="plain-facts">
                    <div><dt>Length</dt><dd>{{ $say->clock($source->seconds) }}</dd></div>
                    <div><dt>Container</dt><dd>{{ strtoupper($source->container) }}{{ $facts->extensionDiffers() ?
                        ', though the name ends in .'.pathinfo($source->name, PATHINFO_EXTENSION) : '' }}</dd></div>
                    @if($source->sha256)<div><dt>SHA-256</dt><dd><code>{{ $source->sha256 }}</code></dd></div>@endif
                    @if($source->isHeaderless())<div><dt>Without a header</dt><dd>read as what somebody said: <a
                        href="{{ route('source.headerless', $source) }}">try it otherwise</a></dd></div>@endif
                    <div><dt>Size</dt><dd>{{ $say->bytes($source->bytes) }}</dd></div>
                    <div><dt>Came in</dt><dd>{{ ['shelf' => 'from a shelf', 'drive' => 'from the drive', 'result' =>
                        'from a result made here',
                        'recorder' => 'copied from '.$source->came_from][$source->origin] ?? 'uploaded' }}, {{
                        $source->created_at->format('j M Y, H:i') }}</dd></div>
                </dl>
                <p><a class="act act-quiet" href="{{ route('catalogue', ['sources' => $source->id]) }}">Look it up in the catalogue</a></p>
                @if($source->noted() !== null)
                    <form method="post" action="{{ route('catalogue.forget', $source) }}">@csrf @method('delete')
                        <p>Known from the catalogue: {{ implode(', ', $source->noted()->fields()) }} <button class="link"
                        type="submit">take that away</button></p></form>
                @endif
            </section>
            <div>
                <div id="findings-box">
                @if($facts->findings !== [] || $source->analysisFindings() !== [])
                    <section id="findings" aria-labelledby="findings-title">
                        <h2 id="findings-title">Findings</h2>
                        @foreach($source->analysisFindings() as $finding)
                            <div class="finding finding-{{ $finding->severity }}">@include('parts.mark', ['level' => $finding->severity])
                                <div>
                                <p>{{ $finding->says }}@if($finding->shaping === []) <span
                                class="remedy">{{ $finding->remedy }}</span>@endif</p>@if($finding->shaping !== [])<a class="act act-quiet"
                                href="{{ route('order.current', ['sources' => $source->id, 'track' => $source->soundTracks()->count() > 1 ?
                                $finding->track : null] + $finding->shaping) }}">{{ $finding->press() }}</a>@endif</div></div>
                        @endforeach
                        @foreach($facts->findings as $finding)
                            <div class="finding finding-{{ $finding->severity->value }}">@include('parts.mark', ['level' =>
                                $finding->severity->value])<div><p>{{ $finding->says() }}@if($finding->shaping === []) <span
                                class="remedy">{{ $finding->remedy() }}</span>@endif</p>@if($finding->shaping !== [])<a
                                class="act act-quiet" href="{{ route('order.current', ['sources' => $source->id] + $finding->shaping)
                                }}">{{ rtrim($finding->remedy(), '.') }}</a>@endif</div></div>
                        @endforeach
                    </section>
                @endif
                </div>
                <section aria-labelledby="tracks-title">
                    <h2 id="tracks-title">Tracks</h2>
                    <div class="sheet-scroll">
                    <table class="ledger ledger-tracks">
                        <thead><tr><th class="num">No.</th><th>Kind</th><th>Format</th><th>Layout or size</th><th class="num">Rate</th><th
                            class="num">Length</th><th class="num">Starts</th><th class="num">Delay</th><th class="num">kbit/s</th>
                            <th>Language</th></tr></thead>
                        <tbody>
                        @foreach($source->tracks as $track)
                            <tr>
                                <td class="num">{{ $track->number }}</td><td>{{ $track->kind }}</td><td>{{ $track->format }}</td>
                                <td>{{ $track->layout ?? ($track->width ? $track->width.' × '.$track->height : '–') }}</td>
                                <td class="num">{{ $track->kind === 'picture' ? number_format($track->per_second, 2).'/s' :
                                    $say->rate($track->rate) }}</td>
                                <td class="num">{{ $track->samples === null ? $say->clock($facts->track($track->number)?->seconds()) :
                                    number_format($track->samples) }}@if($track->samples !== null)<span
                                    class="sub">samples</span>@endif</td>
                                <td class="num">{{ number_format($track->starts, 3) }} s</td>
                                <td class="num">{{ $facts->track($track->number)?->sound === null ? '–' :
                                    number_format($facts->track($track->number)->timeline->skipped()) }}</td>
                                <td class="num">{{ number_format($track->kbps ?? 0, 0) }}<span
                                    class="sub">{{ $facts->rateModes()[$track->number] ?? '' }}</span></td>
                                <td>{{ $track->language === null ? '–' : $say->language($track->language)
                                    }}@if(($facts->track($track->number)->name ?? '') !== '')<span
                                    class="sub">{{ $facts->track($track->number)->name }}</span>@endif</td>
                            </tr>
                        @endforeach
                        </tbody>
                    </table>
                    </div>
                </section>
                @if($facts->chapters !== [])
                    <section aria-labelledby="chapters-title">
                        <h2 id="chapters-title">Chapters</h2>
                        <ol class="chapters">
                            @foreach($facts->chapters as $chapter)<li><span
                                class="num">{{ $say->clock($chapter->starts) }}</span> {{ $chapter->title }}</li>@endforeach
                        </ol>
                    </section>
                @endif
                <section aria-labelledby="tags-title">
                    <h2 id="tags-title">Tags</h2>
                    @if($facts->cover !== '')<img class="cover" src="{{ route('source.cover', $source) }}"
                        alt="Cover, {{ $facts->cover }}">@endif
                    @if($facts->tags->values() === [])
                        <p class="quiet">The file says nothing about itself.</p>
                    @else
                        <dl class="plain-facts">
                            @foreach($facts->tags->values() as $field => $value)
                                <div><dt>{{ ucfirst(str_replace('_', ' ', $field)) }}</dt><dd>{{ $value }}</dd></div>
                            @endforeach
                        </dl>
                    @endif
                </section>
                @include('sources.own')
                @include('sources.away')
            </div>
        </div>
    @endif
@endsection
