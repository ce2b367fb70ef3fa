<div class="foot" id="picked" @if($outside) hx-swap-oob="true" @endif @if(($draft?->lines_count ?? $draft?->lines()->count() ?? 0) === 0) hidden @endif>
    @if($draft)
        <p><output data-pick-count>{{ number_format($draft->lines_count ?? $draft->lines()->count()) }}</output> on {{ $draft->heading() }}
            <button type="button" class="act act-quiet" data-pick-none>Choose none</button></p>
        <form method="post" action="{{ route('ticks.order') }}">@csrf<button class="act act-quiet" type="submit">Keep it as a draft, begin another</button></form>
        <a class="act" href="{{ route('order', $draft) }}" data-to-sheet>Put on the order sheet</a>
    @endif
</div>
