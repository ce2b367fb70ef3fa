<svg viewBox="0 0 {{ App\Orders\Values\WayDrawing::WIDTH }} {{ $way->height }}" role="img"
    aria-label="{{ $one->plan->isKept() ? 'kept' : 'remade' }}: {{ implode(', ', $one->steps()) }}">
@foreach($way->lines as $line)<path class="{{ $line->kept ? 'kept' : 'remade' }}" d="{{ $line->path() }}"
    style="stroke-width: {{ $line->width }}"/>@endforeach
@foreach([...$way->from, ...$way->to] as $end)<circle cx="{{ $end->x }}" cy="{{ $end->y }}" r="11"/><text x="{{ $end->x }}"
    y="{{ $end->y + 4 }}">{{ $end->letters }}</text>@endforeach
</svg>
