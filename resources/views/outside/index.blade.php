@extends('layout')
@section('title', 'Outside')
@section('content')
    <div class="title-row">
        <h1>Outside</h1>
        <p class="lead">Where sound comes from and where it goes to, beyond this machine’s files.</p>
    </div>
    <ul class="outside">
        <li><h2><a href="{{ route('drive') }}">Drive</a></h2><p>{{ $disc === null ? 'The tray is empty.' : 'In the tray: '.$say->name($disc)
            }}</p></li>
        <li><h2><a href="{{ route('recorders') }}">Recorders</a></h2><p>{{ $recorders === [] ? 'None is plugged in.' : implode(', ',
            array_map(fn ($one) => $one->name, $recorders)) }}</p></li>
        <li><h2><a href="{{ route('players') }}">Players</a></h2><p>{{ $players === [] ? 'None is plugged in.' : implode(', ', array_map(fn
            ($one) => $one->title(), $players)) }}</p></li>
        <li><h2><a href="{{ route('publish') }}">Publish</a></h2><p>{{ $hosts === [] ? 'No host is known.' : implode(', ', array_map(fn
            ($one) => $one->title(), $hosts)) }}</p></li>
    </ul>
@endsection
