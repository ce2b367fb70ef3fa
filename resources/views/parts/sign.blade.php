{{-- Kept: a solid line. Remade: a stitched one. --}}
<span class="sign sign-{{ $action }}"><svg viewBox="0 0 30 10" aria-hidden="true"><path d="M1 5h28"/></svg>{{ $action }}</span>
