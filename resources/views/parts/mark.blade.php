{{-- The severity of a finding by shape and colour: a bar across (stop), a notch (warn), a dot (note). --}}
<svg class="severity severity-{{ $level }}" viewBox="0 0 20 20" role="img"
    aria-label="{{ ['stop' => 'Stands in the way', 'warn' => 'Worth a look', 'note' => 'Worth knowing'][$level] ?? 'Worth knowing' }}">
    @switch($level)
        @case('stop') <path d="M2 10h16" stroke-width="5"/><path d="M10 3v14" stroke-width="1.5"/> @break
        @case('warn') <path d="M2 14h5l3-9 3 9h5" stroke-width="2.4" fill="none"/> @break
        @default <circle cx="10" cy="10" r="3.4" stroke-width="0"/>
    @endswitch
</svg>
