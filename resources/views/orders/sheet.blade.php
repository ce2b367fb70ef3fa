@use('App\Orders\Pages\SheetView')
@extends('layout')
@section('title', $sheet->order->heading())
@section('morphs', 'yes')
@push('scripts')
    <script src="/vendor/idiomorph-ext.min.js" defer></script>
    <script type="module" src="/assets/js/sheet/sheet.js"></script>
@endpush
@section('content')
    <div class="title-row">
        <h1>Order sheet</h1>
        <p class="lead">What came in, what happens to it, what goes out.</p>
        <div class="title-acts">
            <a href="{{ route('sources') }}">Add sources</a>
            <a href="{{ route('orders') }}">All drafts</a>
        </div>
    </div>
    <form id="sheet" class="sheet-form" data-sheet="{{ route('order', $sheet->order) }}"
        hx-patch="{{ route('order.update', $sheet->order) }}"
        hx-trigger="change delay:10ms, input changed delay:350ms from:#name, input changed delay:350ms from:#title" hx-swap="none"
        hx-sync="this:queue last" data-renews autocomplete="off">
        <div class="choices choices-head">
            <div class="choice choice-title">
                <label for="title">Order</label>
                <input id="title" name="title" type="text" value="{{ $sheet->order->title }}" placeholder="{{ 'Order '.$sheet->order->id }}"
                    maxlength="120" autocomplete="off">
                <p class="note">its title, also for names</p>
            </div>
            @include('orders.head')
            {{-- The name stands outside of what is renewed, so that nothing typed is ever lost to an answer on its way. --}}
            <div class="choice choice-name">
                <label for="name">Name</label>
                <input id="name" name="name" type="text" value="{{ $sheet->choices->form->name() }}" autocomplete="off" spellcheck="false">
                <p class="note">{{ '{stem}' }} is the original name</p>
            </div>
            @include('orders.name-words', ['for' => 'name', 'form' => $sheet->choices->form])
        </div>
        <div class="choices choices-made">
            @include('orders.settings')
        </div>
    </form>
    @include('orders.tools')
    <div class="board" aria-label="The lines of this order">
        <div class="board-head" aria-hidden="true"><span></span><span>Came in</span><span>What happens</span><span>Goes out</span><span
            class="num">Before</span><span class="num">After</span><span></span></div>
        <div id="rows">@include('orders.rows')</div>
    </div>
    @include('orders.foot')
    <div id="poll" hx-swap-oob="morph">@if($sheet->isWaiting())<div hx-get="{{ route('order', [$sheet->order, 'renew' => 1]) }}"
        hx-trigger="load delay:900ms" hx-swap="none" data-renews data-poll></div>@endif</div>
@endsection
