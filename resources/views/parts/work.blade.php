<div id="work" class="work" data-moving="{{ $work->isMoving() ? 1 : 0 }}"
    data-percent="{{ $work->isAny() ? $work->progress->percent() : '' }}" data-orders="{{ implode(',', $work->orders) }}"
    data-ended="{{ json_encode((object) $work->ended) }}" data-rings="{{ $rings ? 1 : 0 }}" data-notifies="{{ $notifies ? 1 : 0 }}">
    @if($work->isAny())
        <a href="{{ route('results') }}" class="work-says">{{ $work->says() }}</a>
        <form method="post" action="{{ route('work.hold') }}">@csrf
            @if($work->held)<button class="link" name="held" value="0" aria-label="go on with everything">go on</button>
            @else<button class="link" name="held" value="1" aria-label="pause everything">pause</button>@endif
        </form>
    @endif
</div>
