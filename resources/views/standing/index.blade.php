@extends('layout')
@section('title', 'Standing orders')
@section('content')
    <div class="title-row"><h1>Standing orders</h1><p class="lead">Whatever lands in a folder is made at once.</p></div>
    @if($all->isEmpty())
        <div class="empty"><p class="big">No folder is watched yet.</p>
            <p>Say below which folder, and what is to be made of the files that land in it. A file counts once it has stopped growing, and
            is never taken twice.</p></div>
    @else
        <table class="ledger">
            <caption class="unseen">Standing orders</caption>
            <thead><tr><th>Title</th><th>Watches</th><th>Makes</th><th class="num">Arriving</th><th class="num">Ordered</th><th
                class="num">Failed</th><th>State</th></tr></thead>
            <tbody>
            @foreach($all as $one)
                <tr><td class="name"><a href="{{ route('standing.show', $one) }}">{{ $one->title }}</a></td>
                    <td>{{ $one->shelf }}{{ $one->folder === '' ? '' : '/'.$one->folder }}</td><td>{{ $page->title($one) }}</td>
                    <td class="num">{{ number_format($one->arriving + $one->taken) }}</td><td
                        class="num">{{ number_format($one->ordered) }}</td><td class="num">{{ number_format($one->failed) }}</td>
                    <td>@if($one->paused)paused @elseif($one->trouble !== '')<span
                        class="fault">{{ $one->trouble }}</span>@else watching @endif</td></tr>
            @endforeach
            </tbody>
        </table>
    @endif
    <h2>A new one</h2>
    @if($page->shelves() === [])<p>No shelf is open yet: open a folder on the page of <a
        href="{{ route('settings') }}">settings</a> first.</p>
    @else
    <form method="post" action="{{ route('standing.store') }}">@csrf
        @include('standing.fields')
        <p><button class="act" type="submit">Watch this folder</button></p>
    </form>
    @endif
@endsection
