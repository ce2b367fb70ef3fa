@foreach($sheet->shown() as $line)
@include('orders.line')
@endforeach
@if($sheet->chosen === [] && $sheet->lines !== [])<p class="more" id="no-lines">No line is like that.</p>@endif
@if($sheet->lines === [])<p class="more" id="no-lines">The sheet is empty. Tick what you want to work on among the <a
    href="{{ route('sources') }}">sources</a>; it stands here at once.</p>@endif
@if($sheet->hidden() > 0)<p class="more" id="more" hx-get="{{ route('order', [$sheet->order, ...$sheet->view->query(),
    'from' => $sheet->next(), 'rows' => 1]) }}" hx-trigger="intersect once" hx-swap="outerHTML"><a
        href="{{ route('order', [$sheet->order, ...$sheet->view->query(), 'count' => count($sheet->chosen)]) }}">{{
    $sheet->hidden() === 1 ? 'One more' : number_format($sheet->hidden()).' more' }}</a></p>@endif
