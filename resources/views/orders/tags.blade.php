@use('App\Orders\Queries\TagTool')
@extends('layout')
@section('title', 'Tags of '.$order->heading())
@push('scripts')<script type="module" src="/assets/js/tags.js"></script>@endpush
@section('content')
    <div class="title-row">
        <h1>Tags</h1>
        <p class="lead">What the results of {{ $order->heading() }} say about themselves. The sources stay as they are.</p>
        <div class="title-acts"><a href="{{ route('order', $order) }}">Back to the order sheet</a></div>
    </div>
    @if($rows === [])
        <div class="empty"><p>There is no line on this order yet.</p></div>
    @else
    @include('orders.cover', ['id' => 'all', 'line' => '', 'shown' => null])
    @if($short !== [])<p class="note">@foreach($short as $format => $fields){{ $format }} has no place for {{ implode(', ', $fields)
        }}. @endforeach</p>@endif
    <form id="tags" method="post" action="{{ route('order.tags.update', $order) }}" data-tags
        data-types="{{ route('order.tags.type', $order) }}" autocomplete="off">
        @csrf
        <input type="hidden" name="page" value="{{ $page }}">
        <fieldset class="tag-tools">
            <legend>For {{ $marked > 0 ? ($marked === 1 ? 'the marked line' : 'the '.number_format($marked).' marked lines') :
                'all '.number_format($count).' lines' }}</legend>
            <label>Column <select name="field"><option value="">all columns</option>@foreach($columns as $field)<option
                value="{{ $field }}">{{ str_replace('_', ' ', $field) }}</option>@endforeach</select></label>
            @foreach([TagTool::Fill, TagTool::Upper, TagTool::Lower, TagTool::Words, TagTool::Clean] as $tool)<button class="act act-quiet"
                type="submit" name="tool" value="{{ $tool->value }}">{{ $tool->label() }}</button>@endforeach
            <span class="tool-part"><label>Find <input type="text" name="search" size="12"></label><label>replace by <input type="text"
                name="with" size="12"></label><button class="act act-quiet" type="submit" name="tool"
                value="{{ TagTool::Replace->value }}">Replace</button></span>
            <span class="tool-part"><label>Tracks from <input type="text" name="from" inputmode="numeric" size="3" value="1"></label><label
                class="tickline"><input type="checkbox" name="of_all" value="1"> with how many there are</label><button
                class="act act-quiet" type="submit" name="tool" value="{{ TagTool::Number->value }}">{{ TagTool::Number->label()
                }}</button></span>
            <span class="tool-part"><label>Names are like <input type="text" name="pattern" size="22" value="{{ '{track} - {title}' }}"
                spellcheck="false"></label><button class="act act-quiet" type="submit" name="tool"
                value="{{ TagTool::FromName->value }}">{{ TagTool::FromName->label() }}</button><button class="act act-quiet" type="submit"
                name="tool" value="{{ TagTool::ToName->value }}">{{ TagTool::ToName->label() }}</button></span>
            <span class="tool-part"><label>Further columns <input type="text" name="more" size="14" value="{{ $more }}"
                placeholder="isrc, mood"></label><button class="act act-quiet" type="submit">Show</button></span>
        </fieldset>
        <div class="sheet-scroll">
        <table class="ledger tag-grid">
            <caption class="unseen">Tags of each line</caption>
            <thead><tr><th>Source</th>@foreach($columns as $field)<th>{{ ucfirst(str_replace('_', ' ', $field)) }}</th>@endforeach</tr>
                </thead>
            <tbody>
            @foreach($rows as $row)
                <tr><th scope="row">@if($row->cover !== null)<img class="cover-small" src="{{ route(...$row->cover) }}" alt=""
                    loading="lazy" width="32" height="32">@endif{{ $row->name }}@if($row->marked)<span
                    class="under">marked</span>@endif</th>
                @foreach($columns as $field)<td><input type="text" name="cells[{{ $row->line }}][{{ $field }}]"
                    value="{{ $row->value($field) }}" @class(['is-changed' => $row->isChanged($field), 'is-lost' => ! $row->holds($field)])
                    aria-label="{{ str_replace('_', ' ', $field) }} of {{ $row->name }}{{ $row->holds($field) ? '' :
                    ', which '.$row->format.' has no place for' }}" @if(! $row->holds($field))
                    title="{{ $row->format }} has no place for it" @endif></td>@endforeach</tr>
            @endforeach
            </tbody>
        </table>
        </div>
        @if($pages > 1)<nav class="pages" aria-label="Pages">@for($one = 1; $one <= $pages; $one++)<a class="act act-quiet"
            href="{{ route('order.tags', array_filter([$order, 'page' => $one, 'more' => $more])) }}" @if($one === $page)
            aria-current="page" @endif>{{ $one }}</a>@endfor</nav>@endif
        <p class="note">Several values are separated by semicolons. An empty field is left out of the result. Names of results follow the
            tags
            where the name asks for them.</p>
        <div class="foot"><p class="quiet" data-kept role="status">What you type is kept as you type it.</p><button class="act act-quiet"
            type="submit" formaction="{{ route('order.tags.undo', $order) }}" data-undo
            @disabled(! $undo)>Take the last change back</button></div>
    </form>
    @endif
@endsection
