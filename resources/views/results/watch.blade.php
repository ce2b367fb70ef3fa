{{-- Asks for what has changed as long as anything is at work. --}}
<div id="watch" @if($outside) hx-swap-oob="true" @endif @if($open) data-open
    hx-get="{{ route('results.changes', ['since' => $since, 'mark' => $mark ?? 0]) }}" hx-trigger="every 700ms" hx-swap="none" @endif></div>
