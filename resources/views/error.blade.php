@extends('layout')
@section('title', 'Not here')
@section('content')
    <section class="lone">
        <h1>{{ $status === 404 ? 'Nothing here' : 'That did not work' }}</h1>
        <p>{{ $sentence }}</p>
        <p><a class="act" href="{{ route('sources') }}">To the sources</a></p>
    </section>
@endsection
