@if($chosen)
    <section class="listen" id="listen" aria-labelledby="listen-title" data-listen
        data-source="{{ $source->id }}" data-track="{{ $chosen->number }}" data-rate="{{ $chosen->rate }}"
            data-samples="{{ $chosen->measured()?->samples ?? $chosen->samples }}"
        data-letters="{{ json_encode($chosen->letters($facts)) }}" data-frames="{{ $source->picturesASecond() }}"
        data-waveform="{{ route('track.waveform', [$source, $chosen->number]) }}"
            data-sound="{{ route('track.sound', [$source, $chosen->number]) }}"
            data-silences="{{ route('track.silences', [$source, $chosen->number]) }}"
        data-chapters="{{ json_encode(array_map(fn ($chapter) => $chapter->starts, $facts->chapters)) }}"
            data-ends="{{ json_encode($facts->chapterEnds()) }}" data-order="{{ route('order.current') }}"
            data-one="{{ $source->soundTracks()->count() < 2 ? 1 : 0 }}">
        <div class="listen-head">
            <h2 id="listen-title">Waveforms</h2>
            @if($source->soundTracks()->count() > 1)
                <nav aria-label="Sound tracks" class="listen-tracks">
                    @foreach($source->soundTracks() as $track)<a href="{{ route('source', [$source, 'track' => $track->number]) }}#listen"
                        @if($track->is($chosen)) aria-current="true" @endif>{{ $track->number }}{{ $track->language ?
                        ' '.$say->language($track->language) : '' }}</a>@endforeach
                </nav>
            @endif
            @if($chosen->isBeingAnalyzed())
                <p class="busy" data-hearing hx-get="{{ request()->fullUrl() }}" hx-trigger="every 1200ms"
                    hx-select="[data-hearing], [data-measured]" hx-select-oob="#findings-box{{ implode('', array_map(fn ($index) =>
                    ',#level-'.$index, array_keys($chosen->letters($facts)))) }}" hx-target="this" hx-swap="outerHTML">being analysed</p>
            @elseif($chosen->analysis_error)
                <p class="fault">{{ $chosen->analysis_error }}</p>
            @else
                <p class="num-line" data-measured>{{ $chosen->measuredLine() }}</p>
            @endif
        </div>
        @if(! $chosen->analysis_error)
        <div class="listen-bar">
            <button type="button" class="act" data-play aria-keyshortcuts="Space">Play</button>
            <output class="num place" data-place>0:00.000</output>
            <button type="button" class="act act-quiet" data-hear-marked>Hear what is marked</button>
            <span class="spread"></span>
            <button type="button" class="act act-quiet" data-closer aria-label="Closer">Closer</button>
            <button type="button" class="act act-quiet" data-farther aria-label="Farther">Farther</button>
            <button type="button" class="act act-quiet" data-whole>All of it</button>
            <button type="button" class="act act-quiet" data-keys aria-label="? Keys">?</button>
        </div>
        <div class="waveforms" data-waveforms tabindex="0" role="application"
            aria-label="Waveforms of {{ $source->heading() }}: arrows move the nearest mark, Space plays, ? tells all keys">
            @foreach($chosen->letters($facts) as $index => $letters)
                <div class="waveform">
                    <div class="waveform-side">
                        <button type="button" class="channel" data-channel="{{ $index }}" aria-pressed="true"
                            title="Hear or silence this channel; with Shift alone">{{ $letters }}</button>
                        <span class="num-line" id="level-{{ $index }}">@if($chosen->measured()?->levels[$index] ?? null){{
                            $say->decibels($chosen->measured()->levels[$index]->peakDecibels()) }}<span
                            class="sub">RMS {{ $say->decibels($chosen->measured()->levels[$index]->rmsDecibels(), '')
                            }}</span>@if(($chosen->measured()->alone[$index] ?? null) !== null)<span
                            class="sub">{{ number_format($chosen->measured()->alone[$index], 1) }} LUFS</span>@endif @endif</span>
                    </div>
                    <canvas data-canvas="{{ $index }}" aria-hidden="true"></canvas>
                </div>
            @endforeach
            <div class="waveform-scale"><canvas data-scale aria-hidden="true"></canvas></div>
        </div>
        <input type="range" class="window" data-window min="0" max="1000" value="0" aria-label="Where in the sound" hidden>
        <div class="marks">
            <label>Begin <input type="text" data-begin class="num" size="11" autocomplete="off"></label>
            <label>End <input type="text" data-end class="num" size="11" autocomplete="off"></label>
            <label>Length <input type="text" data-length class="num" size="11" autocomplete="off"></label>
            <button type="button" class="act act-quiet" data-keep>Keep this piece</button>
            <button type="button" class="act act-quiet" data-drop>Leave this piece out</button>
            <span class="spread"></span>
            <button type="button" class="act act-quiet" data-undo disabled>Undo</button>
            <button type="button" class="act act-quiet" data-redo disabled>Redo</button>
        </div>
        <div class="marks marks-more">
            @if($facts->chapters !== [])<button type="button" class="act act-quiet" data-by-chapters>A piece of each chapter</button>@endif
            @if(array_filter($facts->chapterEnds()) !== [])<button type="button" class="act act-quiet"
                data-without-gaps>A piece of each, without the gaps</button>@endif
            <button type="button" class="act act-quiet" data-by-silence>Leave silences out</button>
            <label>below <input type="text" data-silence-level class="num" size="4" value="-45"> dBFS</label>
            <label>for <input type="text" data-silence-least class="num" size="4" value="0.7"> s</label>
            <output data-says aria-live="polite" class="quiet"></output>
        </div>
        <table class="ledger pieces" data-pieces-table hidden>
            <thead><tr><th class="num">No.</th><th>Begin</th><th>End</th><th class="num">Length</th><th>In the result</th>
                <th>Hear and move</th></tr></thead>
            <tbody></tbody>
            <tfoot><tr><td></td><td colspan="2">What is made of it</td><td class="num" data-total></td><td colspan="2"><button type="button"
                class="act act-quiet" data-hear-all>Hear all of it</button> <a class="act" data-to-order
                href="#">Put the pieces on the order sheet</a></td></tr></tfoot>
        </table>
        <dialog class="keys" data-keys-dialog>
            <h2>Keys</h2>
            <dl class="plain-facts">
                @foreach(['Space' => 'play, or stop', 'B and E' => 'set begin or end where the line stands', '← →' =>
                    'move the mark that was set last by 10 ms', 'Shift ← →' => 'by one picture', 'Alt ← →' => 'by one sample', 'Z' =>
                    'to the next crossing of zero', 'S' => 'to the next silence', 'P' => 'keep the piece that is marked', 'X' =>
                    'leave it out', 'H' => 'hear what is marked', 'N' => 'hear the join at the line', ', and .' =>
                    'jump to the edge before or after', 'U and R' => 'undo, redo', '1 … 9' => 'hear or silence a channel', 'Shift 1 … 9' =>
                    'hear it alone, then all again', '+ and −' => 'closer, farther', '0' => 'all of it', '?' => 'these keys'] as $keys =>
                    $does)<div><dt>{{ $keys }}</dt><dd>{{ $does }}</dd></div>@endforeach
            </dl>
            <form method="dialog"><button class="act">Close</button></form>
        </dialog>
        @endif
    </section>
@endif
