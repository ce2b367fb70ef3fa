<section class="line @if($line->isStopped()) line-stopped @endif" id="line-{{ $line->line->id }}" data-line="{{ $line->line->id }}"
    data-url="{{ route('line', [$line->line->order_id, $line->line->id]) }}">
<div class="row-closed" id="row-{{ $line->line->id }}">
<span class="row-tick"><input type="checkbox" data-mark-line value="{{ $line->line->id }}" id="mark-{{ $line->line->id }}"
    @checked($line->line->marked) aria-label="Mark {{ $line->source->heading() }}"></span>
<div class="row-in"><h2><a href="/sources/{{ $line->source->id }}">{{ $line->source->heading() }}</a></h2>@if($line->source->folder !==
    '')<span class="under">{{ $line->source->folder }}</span>@endif</div>
@if($line->first()->plan)
<div class="row-way">@include('parts.sign', ['action' => $line->first()->plan->isKept() ? 'kept' : 'remade'])<span
    class="steps">{{ $line->first()->measure() }}</span></div>
<div class="row-out"><h3>{{ $line->first()->shownPath($line->spec->place ?? '') }}</h3>@if(count($line->results) > 1)<span
    class="under">and {{ count($line->results) - 1 }} more</span>@endif</div>
<span class="num">{{ $say->bytes($line->first()->soundBytes) }}</span>
<span class="num"><strong>{{ $say->bytes($line->bytes()) }}</strong></span>
@else
<div class="row-stop">@include('parts.mark', ['level' => $line->isStopped() ? 'stop' : 'note'])<span>{{ $line->says() }}</span></div>
@endif
<button type="button" class="row-open" id="toggle-{{ $line->line->id }}" data-open aria-expanded="{{ $sheet->open ? 'true' : 'false' }}"
    aria-controls="open-{{ $line->line->id }}" aria-label="Open {{ $line->source->heading() }}"><svg viewBox="0 0 12 12"
    aria-hidden="true"><path d="M2 4l4 4 4-4"/></svg></button>
<div class="row-more">
@if($line->fit)<span class="standing standing-{{ $line->fit->change->value }}">{{ $line->fit->change->label() }}</span>@if($line->fit->why()
    !== '' && ! $line->isStopped())<span class="quiet">{{ $line->fit->why() }}</span>@endif @endif
@if($line->first()->plan && $line->severity())<span class="row-says">@include('parts.mark', ['level' => $line->severity()]){{ $line->says()
    }}</span>@endif
@if($line->placeNote !== '' && $line->first()->plan)<span class="quiet">{{ $line->placeNote }}</span>@endif
@foreach($line->remedies() as $remedy)<button type="button" class="chip chip-act"
    data-remedy="{{ json_encode($remedy->fields) }}">{{ $remedy->label }}</button>@endforeach
@foreach($line->heard() as $finding)@if($finding->shaping !== [])<button type="button" class="chip chip-act"
    data-remedy="{{ json_encode($finding->shaping) }}">{{ $finding->press() }}</button>@endif @endforeach
@foreach($line->differs() as $field => $words)<button type="button" class="chip" data-back="{{ $field }}"
    title="Set it back to what the order says">{{ $words }} <span aria-hidden="true">×</span><span
    class="unseen">, set back</span></button>@endforeach
</div>
</div>
<div class="line-open" id="open-{{ $line->line->id }}" @if(! $sheet->open) hidden
    @endif>@if($sheet->open)@include('orders.panel', ['panel' => $sheet->open])@endif</div>
</section>
