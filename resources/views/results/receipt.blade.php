@if($result->receiptFacts() === null)
<p>The measurements of this result can no longer be read; the file itself is unchanged.</p>
@else
<div class="receipt-body">
    <div>
    @if($result->isVideo())<video controls preload="none" src="{{ route('result.media', $result) }}"
        aria-label="Play {{ $result->name }}"></video>@endif
    @foreach($sounds as $sound)
        <div class="hear"><span class="label" id="hear-{{ $result->id }}-{{ $loop->index }}">{{ $sound->title }}</span>
            <audio controls preload="none" aria-labelledby="hear-{{ $result->id }}-{{ $loop->index }}">@if($sound->media !== '')<source
                src="{{ $sound->media }}" type="{{ $sound->type }}">@endif<source src="{{ $sound->decoded }}" type="audio/wav"></audio>
                </div>
    @endforeach
    @if(! $result->isVideo())
        <div class="before-after">
            @foreach(['before' => 'Before', 'after' => 'After'] as $side => $title)
                <section>
                    <h4>{{ $title }}</h4>
                    <div class="waveform-picture" hx-get="{{ route('result.picture', [$result, $side]) }}" hx-trigger="load"></div>
                    @if($result->receiptFacts()->figures($side) !== [])
                        <table>@foreach($result->receiptFacts()->figures($side) as $name => $figure)<tr><th>{{ $name }}</th>
                            <td>{{ $figure }}</td></tr>@endforeach</table>
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
        <div><dt>Place</dt><dd><code>{{ $result->path }}</code> <button type="button" class="link" data-copy="{{ $result->path }}"
            aria-label="copy the path of {{ $result->name }}">copy the path</button> <a
            href="{{ route('results', ['in' => dirname((string) $result->path)]) }}">what lies there</a></dd></div>
        <div><dt>Once more</dt><dd><button type="submit" class="link" formaction="{{ route('result.again', $result) }}"
            form="many">ask the same of other sources</button></dd></div>
    </dl>
</div>
@endif
