@extends('layout')
@section('title', 'Sources')
@push('scripts')
    <script src="/vendor/tus.min.js" defer></script>
@endpush
@section('content')
    <div class="title-row">
        <h1>Sources</h1>
        <p class="lead">What came in. Nothing here is ever changed.</p>
        <form class="find" role="search" hx-get="{{ route('sources') }}" hx-target="#list" hx-select="#list" hx-swap="outerHTML"
            hx-push-url="true" hx-trigger="input changed delay:250ms from:#find, change, submit">
            <label for="find">Find</label>
            <input id="find" name="find" type="search" value="{{ $find }}" placeholder="name or folder" autocomplete="off">
            <label for="by">Order</label>
            <select id="by" name="by">
                @foreach(['new' => 'newest first', 'name' => 'by name', 'length' => 'longest first', 'size' => 'largest first', 'folder' =>
                    'by folder', 'container' => 'by container'] as $value => $label)
                    <option value="{{ $value }}" @selected($order === $value)>{{ $label }}</option>
                @endforeach
            </select>
            <label for="show">Show</label>
            <select id="show" name="show">
                <option value="">all</option>
                @foreach($kinds as $group => $choices)@if($group !== '' && $choices !== [])<optgroup
                    label="{{ $group }}">@endif @foreach($choices as $value => $label)<option value="{{ $value }}"
                    @selected($show === $value)>{{ $label }}</option>
                    @endforeach @if($group !== '' && $choices !== [])</optgroup>@endif @endforeach
            </select>
            <label for="for">To go to</label>
            <select id="for" name="for">
                <option value="">nowhere yet</option>
                @foreach($destinations as $name => $one)<option value="{{ $name }}"
                    @selected($for === $name)>{{ $one->what->title }}</option>@endforeach
            </select>
        </form>
    </div>

    <section class="bring" data-drop aria-label="Bring in">
        <p><strong>Drop videos, recordings or whole folders anywhere on this page</strong>, or
            <label class="act act-quiet" for="files">choose files</label><input id="files" type="file" multiple class="unseen">
            <a class="act act-quiet" href="{{ route('shelves') }}">take from a shelf</a>
        </p>
        <ul class="uploads" data-uploads data-url="{{ route('uploads') }}" aria-live="polite"></ul>
    </section>

    <div id="list" data-ticks="{{ route('ticks') }}" @if($reading) hx-get="{{ request()->fullUrl() }}" hx-trigger="every 900ms"
        hx-select="#list" hx-swap="outerHTML" @endif>
        @foreach($copies as $copy)
            <div class="copying" id="copying-{{ $copy->id }}">{{ $copy->heading() }}: @if($copy->state === 'failed')<span
                class="fault">{{ $copy->says }}</span> <form class="in-line" method="post"
                action="{{ route('shelf.copy', $copy->shelf) }}">@csrf<input type="hidden" name="folder"
                value="{{ $copy->folder }}"><button class="link" type="submit">Go on</button>
                </form>@elseif($copy->state === 'done'){{ $copy->says }}@else<span
                class="busy">{{ $copy->done }} of {{ $copy->files }} copied</span>@endif</div>
        @endforeach
        @if($sources->isEmpty())
            <div class="empty">
                @if($show !== '')
                    <p>No source is like that{{ $find === '' ? '' : ' and has “'.$find.'” in its name or folder' }}.</p>
                @elseif($find !== '')
                    <p>No source has “{{ $find }}” in its name or folder.</p>
                @else
                    <p class="big">Nothing has come in yet.</p>
                    <p>Drop a video on this page. You will see what is inside, choose what it should become, and get the finished file a
                        moment later.</p>
                @endif
            </div>
        @else
            <div class="sheet-scroll">
            <table class="ledger">
                <caption class="unseen">Sources</caption>
                <thead><tr>
                    <th class="tick"><input type="checkbox" data-pick-all aria-label="Choose all on this page"></th>
                    <th>Name</th><th class="num">Length</th><th>Container</th><th>Picture</th><th>Sound tracks</th><th class="num">Size</th>
                        <th><span class="unseen">In the way</span></th>
                </tr></thead>
                <tbody>
                @foreach($sources->items as $source)
                    <tr @class(['is-reading' => $source->state->value === 'reading', 'is-unreadable' => $source->state->value ===
                        'unreadable']) data-source="{{ $source->id }}">
                        <td class="tick"><input type="checkbox" value="{{ $source->id }}" id="pick-{{ $source->id }}"
                            @checked(isset($ticked[$source->id])) @disabled(! $source->canBeOrdered())
                            aria-label="Choose {{ $source->heading() }}"></td>
                        <td class="name"><a href="{{ route('source', $source) }}">{{ $source->heading() }}</a>@if($source->folder !== '' ||
                            $source->group || $source->given_name !== '')<span
                            class="under">{{ $source->given_name === '' ? '' : $source->name.($source->folder === '' ? '' : ' · ') }}{{
                            $source->folder }}@if($source->group) <a class="group-mark"
                            href="{{ route('sources', ['show' => 'group:'.$source->group->id]) }}"
                            aria-label="Show the group {{ $source->group->title }}">{{ $source->group->title }}</a>@endif</span>@endif
                            @if($source->given_name === '' && $source->isReady() && $say->isEmpty($source->name))<a class="under"
                                href="{{ route('source', $source) }}#own-title">give it a name</a>@endif
                            @if($source->companions->isNotEmpty())<span class="under">with {{ $source->companionNames() }}</span>@endif
                            @if($source->note !== '')<span class="under note-line">{{ $source->note }}</span>@endif
                            @if(isset($fits[$source->id]))<span class="fit"><span
                                class="standing standing-{{ $fits[$source->id]->change->value }}">{{ $fits[$source->id]->change->label()
                                }}</span> <span class="quiet">{{ $fits[$source->id]->why() }}</span></span>@endif</td>
                        @if($source->state->value === 'ready')
                            <td class="num">{{ $say->clock($source->seconds) }}</td>
                            <td>{{ strtoupper($source->container) }}</td>
                            <td>{{ $source->picture ?? '–' }}</td>
                            <td class="tracks">
                                @forelse($source->soundTracks() as $track)
                                    <span>{{ $track->format }}, {{ $track->layout }}, {{ $say->rate($track->rate)
                                        }}@if($track->language), {{ $say->language($track->language) }}@endif</span>
                                @empty
                                    <span>none</span>
                                @endforelse
                            </td>
                        @elseif($source->state->value === 'reading')
                            <td colspan="4"><span class="busy">being read</span></td>
                        @else
                            <td colspan="4" class="fault">{{ $source->error_says }}@if($source->same_as) <a
                                href="{{ route('source', $source->same_as) }}">Go there</a>@endif @if($source->mayBeHeaderless())<a
                                href="{{ route('source.headerless', $source) }}">Try it as sound without a header</a>@endif</td>
                        @endif
                        <td class="num">{{ $say->bytes($source->bytes) }}</td>
                        <td class="severity-cell">@if($source->worst)<a
                            href="{{ route('source', $source) }}#findings">@include('parts.mark', ['level' =>
                            $source->worst])</a>@endif</td>
                    </tr>
                @endforeach
                </tbody>
            </table>
            </div>
            @if($find !== '' || $show !== '')
                <form class="shown-acts" method="post" action="{{ route('sources.many') }}">@csrf<input type="hidden" name="find"
                    value="{{ $find }}"><input type="hidden" name="show" value="{{ $show }}">
                    <button class="link" name="do" value="remove-shown"
                        type="submit">Take {{ $total === 1 ? 'this one' : 'all '.number_format($total).' shown' }} off the list</button>
                        </form>
            @endif
            @if($sources->hasPages())
                <nav class="pages" aria-label="Pages">
                    @if($sources->previous())<a class="act act-quiet" href="{{ $sources->previous() }}" rel="prev">Before</a>@endif
                    <span>{{ number_format($total) }} in all</span>
                    @if($sources->next())<a class="act act-quiet" href="{{ $sources->next() }}" rel="next">After</a>@endif
                </nav>
            @endif
        @endif
    </div>
    @include('sources.foot', ['outside' => false])
@endsection
