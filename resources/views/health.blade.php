@extends('layout')
@section('title', 'Health')
@section('content')
    <div class="title-row"><h1>Health</h1><p class="lead">Whether every part of Octavox is running.</p></div>
    <table class="ledger">
        <caption class="unseen">Parts</caption>
        <thead><tr><th>Part</th><th>State</th></tr></thead>
        <tbody>
            @foreach($parts as $name => $says)
                <tr><td>{{ ucfirst($name) }}</td><td>@if($says === '')well @else<span class="fault">{{ $says }}</span>@endif</td></tr>
            @endforeach
        </tbody>
    </table>
    <h2>Failed jobs</h2>
    @if($failed->isEmpty())
        <p class="note">None in the last 30 days. A problem with a single file is shown beside that file.</p>
    @else
        <table class="ledger">
            <caption class="unseen">Failed jobs, newest first</caption>
            <thead><tr><th>When</th><th>Kind of work</th><th>What happened</th></tr></thead>
            <tbody>
                @foreach($failed as $job)
                    <tr><td>{{ $job->failed_at }}</td><td>{{ $job->queue }}</td><td>{{ $job->says }}</td></tr>
                @endforeach
            </tbody>
        </table>
    @endif
@endsection
