<div class="ways" id="way-{{ $panel->line->line->id }}">
@foreach($panel->line->results as $one)
@if($one->plan)
<article class="way">
<div class="way-in">
<p class="num-line">{{ $say->clock($one->source->seconds) }} · {{ $say->bytes($one->soundBytes) }}{{ $one->plan->picture === null ?
    ' of sound' : '' }}</p>
<div class="bar"><i class="bar-in" style="width: {{ $one->sourceBar() }}%"></i></div>
</div>
<div class="way-line">
@include('orders.drawing', ['way' => $one->way()])
<p>@include('parts.sign', ['action' => $one->plan->isKept() ? 'kept' : 'remade'])<span
    class="steps">{{ implode(' · ', $one->steps()) }}</span></p>
@foreach($one->warnings() as $warning)<p class="warning">@include('parts.mark', ['level' => 'warn']){{ $warning }}</p>@endforeach
</div>
<div class="way-out">
<h3>{{ $one->plan->name() }}</h3>
<p class="num-line">{{ $one->measure() }}</p>
<div class="bar"><i class="bar-out bar-{{ $one->plan->isKept() ? 'kept' : 'remade' }}" style="width: {{ $one->resultBar() }}%"></i></div>
@if($one->highestPeak() !== null)<p class="num-line {{ $one->highestPeak() > 1.0 ? 'fault' : 'quiet' }}">peak at most {{
    $say->decibels(round(20 * log10(max(1e-5, $one->highestPeak())), 1)) }}{{ $one->highestPeak() > 1.0 ? ', can clip' : ', cannot clip'
    }}</p>@endif
<p class="num-line"><strong>{{ $say->bytes($one->predictedBytes()) }}</strong> <span
    class="quiet">{{ $say->against($one->predictedBytes(), $one->soundBytes) }}</span></p>
<p class="under">{{ $one->plan->target->folder }}</p>
</div>
</article>
@else
<div class="way-stop finding @if($one->isWaiting || $one->isRight) finding-note @else finding-stop @endif">@include('parts.mark', ['level'
    => $one->isWaiting || $one->isRight ? 'note' : 'stop'])<p>{{ $one->obstacle }}</p></div>
@endif
@endforeach
@foreach($panel->line->refused as $unfit)<p class="warning">@include('parts.mark', ['level' => 'warn'])It would be refused: {{ $unfit->says
    }}</p>@endforeach
</div>
