@extends('layout')
@section('title', 'Scripts')
@section('content')
    <div class="title-row"><h1>Scripts</h1><p class="lead">Everything that is done on these pages can be done over HTTP: JSON in and out,
        below <code>{{ $address }}/api/v1</code>.</p></div>
    <section aria-labelledby="begin-title">
        <h2 id="begin-title">A whole job</h2>
        <p>Make a token on the <a href="{{ route('settings') }}#scripts">page of settings</a>, put it in the first line, and paste these
            lines into a shell one after the other.</p>
        @foreach($examples as [$says, $lines])
            <h3>{{ $says }}</h3>
            <pre class="shell" data-example tabindex="0">{{ $lines }}</pre>
        @endforeach
    </section>
    <section aria-labelledby="know-title">
        <h2 id="know-title">Good to know</h2>
        <dl class="facts">
            <dt>Errors</dt><dd>come as <code>application/problem+json</code> (RFC 9457): <code>status</code>, a stable <code>code</code> for
                programs, a sentence for people in <code>detail</code>, and <code>pointer</code> where one field of what was sent is
                meant.</dd>
            <dt>Twice is once</dt><dd>Send the header <code>Idempotency-Key</code> with anything that changes something: sent again with the
                same key, nothing is done twice and the answer is the same, for two days.</dd>
            <dt>Pages</dt><dd>Lists come newest first, <code>limit</code> at a time; <code>next</code>, and the header <code>Link</code>, is
                the address of the next page.</dd>
            <dt>Not yet</dt><dd>What is still being read or measured is answered with 409 and <code>Retry-After</code>.</dd>
            <dt>Uploads</dt><dd>follow tus 1.0.0, so that any client of that protocol brings large files in and goes on where it was cut
                off.</dd>
            <dt>Events</dt><dd>come as <code>text/event-stream</code>; <code>Last-Event-ID</code> goes on where one was cut off. At most
                three listen at once.</dd>
            <dt>Description</dt><dd><a href="{{ route('api.document') }}">OpenAPI 3.1</a>, from which clients can be made.</dd>
        </dl>
    </section>
    <section aria-labelledby="all-title">
        <h2 id="all-title">All that can be asked</h2>
        <div class="sheet-scroll">
        <table class="ledger">
            <caption class="unseen">All that can be asked</caption>
            <thead><tr><th>Method</th><th>Address</th><th>What it does</th><th>Token</th></tr></thead>
            @foreach($description->groups() as $group => $operations)
                <tbody>
                @foreach($operations as $one)
                    <tr><td><code>{{ strtoupper($one->method) }}</code></td><td><code>{{ $one->path }}</code></td>
                        <td>{{ $one->summary }}@if($one->parameters !== []) <span
                        class="quiet">({{ implode(', ', $one->parameters) }})</span>@endif</td><td>{{ $one->scope?->value ?? 'none' }}</td>
                        </tr>
                @endforeach
                </tbody>
            @endforeach
        </table>
        </div>
    </section>
@endsection
