<div class="foot" id="picked" @if($outside) hx-swap-oob="true" @endif @if(($draft?->lines_count ?? $draft?->lines()->count() ?? 0) === 0)
    hidden @endif>
    @if($draft)
        <p><output data-pick-count>{{ number_format($draft->lines_count ?? $draft->lines()->count()) }}</output> on {{ $draft->heading() }}
            <button type="button" class="act act-quiet" data-pick-none>Choose none</button></p>
        <details class="more-acts"><summary class="act act-quiet">More with them</summary>
        <form method="post" action="{{ route('sources.many') }}">@csrf
            <label for="group-title">Group</label><input id="group-title" name="title" type="text" size="14" maxlength="120"
                placeholder="a name">
            <button class="act act-quiet" name="do" value="group" type="submit">Group them</button>
            <button class="act act-quiet" name="do" value="remove" type="submit">Take them off the list</button></form>
            <a class="act act-quiet" href="{{ route('players') }}">Send them to a player</a>
            <a class="act act-quiet" href="{{ route('catalogue') }}">Look them up in the catalogue</a></details>
        <form method="post" action="{{ route('ticks.order') }}">@csrf<button class="act act-quiet"
            type="submit">Keep it as a draft, begin another</button></form>
        <a class="act" href="{{ route('order', $draft) }}" data-to-sheet>Put on the order sheet</a>
    @endif
</div>
