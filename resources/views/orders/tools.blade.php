@use('App\Orders\Pages\SheetView')
<div class="tools">
    <form class="find" role="search" id="view" data-view action="{{ route('order', $sheet->order) }}" method="get">
        <label for="find">Find</label>
        <input id="find" name="find" type="search" value="{{ $sheet->view->find }}" placeholder="name or folder" autocomplete="off">
        <label for="show">Show</label>
        <select id="show" name="show">@foreach(SheetView::SHOWN as $value => $label)<option value="{{ $value }}"
            @selected($sheet->view->show === $value)>{{ $label }}</option>@endforeach</select>
        <label for="by">Order</label>
        <select id="by" name="by">@foreach(SheetView::ORDERS as $value => $label)<option value="{{ $value }}"
            @selected($sheet->view->by === $value)>{{ $label }}</option>@endforeach</select>
    </form>
    <a class="tags-link" href="{{ route('order.tags', $sheet->order) }}">Tags of all lines</a>
    <details class="save-as">
        <summary>Save as a recipe</summary>
        <form hx-post="{{ route('order.recipe', $sheet->order) }}" hx-swap="none" data-renews>
            <label for="recipe-title">Title</label> <input id="recipe-title" name="title" type="text" maxlength="120" required>
            <button class="act act-quiet" type="submit">Save what is asked</button>
        </form>
    </details>
    <button type="button" class="act act-quiet" data-sheet-keys aria-label="? Keys">?</button>
    <dialog class="keys" data-sheet-keys-dialog>
        <h2>Keys</h2>
        <dl class="plain-facts">
            @foreach(['↑ ↓' => 'from line to line, with the focus in one', 'Space or M' => 'mark the line', 'Shift ↑ ↓' =>
                'mark on the way', 'Shift and press' => 'mark all up to this one', 'O' => 'open or close the line', 'Enter' =>
                'settle what is typed', '?' => 'these keys'] as $keys => $does)<div><dt>{{ $keys }}</dt><dd>{{ $does }}</dd></div>
                @endforeach
        </dl>
        <form method="dialog"><button class="act">Close</button></form>
    </dialog>
    <div id="marks" class="marks-bar" hx-swap-oob="morph">
        @if(count($sheet->lines) > 1)
            <span>{{ $sheet->marked() === 0 ? 'None marked' : number_format($sheet->marked()).' marked' }}</span>
            <button type="button" class="act act-quiet" data-mark="all">Mark all</button>
            @if($sheet->marked() > 0)
                <button type="button" class="act act-quiet" data-mark="none">Mark none</button>
                <form method="post" action="{{ route('order.lines.remove', $sheet->order) }}">@csrf @method('delete')<input type="hidden"
                    name="marked" value="1"><button class="act act-quiet" type="submit">Take the marked off</button></form>
            @endif
        @endif
        @foreach($sheet->common() as $fields => [$label, $count])
            <button type="button" class="chip chip-act" data-alike="{{ $fields }}">{{ $label }}, for all {{ $count }}</button>
        @endforeach
    </div>
</div>
