<!doctype html>
<html lang="en">
<head>
    <meta charset="utf-8">
    <meta name="viewport" content="width=device-width, initial-scale=1">
    @if(request()->hasSession())<meta name="csrf-token" content="{{ csrf_token() }}">@endif
    <meta name="htmx-config" content='{"includeIndicatorStyles": false, "allowEval": false, "selfRequestsOnly": true}'>
    <title>@yield('title') – Octavox</title>
    <link rel="icon" href="/assets/mark.svg" type="image/svg+xml">
    <link rel="stylesheet" href="/vendor/bootstrap.min.css">
    <link rel="stylesheet" href="/vendor/fonts.css">
    <link rel="stylesheet" href="/assets/octavox.css">
    <script src="/vendor/htmx.min.js" defer></script>
    @stack('scripts')
    <script type="module" src="/assets/js/page.js"></script>
    @if(request()->hasSession())<script type="module" src="/assets/js/work.js"></script>@endif
</head>
<body @if(request()->hasSession()) hx-headers='{"X-CSRF-TOKEN": "{{ csrf_token() }}"}' @endif>
    <a class="skip" href="#main">To the content</a>
    <header class="head">
        <a class="wordmark" href="{{ route('sources') }}" aria-label="Octavox, start">
            <svg viewBox="0 0 44 28" aria-hidden="true"><path d="M3 9 C 14 9, 16 14, 22 14 S 30 9, 41 9" class="kept"/><path
                d="M3 20 C 14 20, 16 14, 22 14 S 30 20, 41 20" class="remade"/></svg>
            Octavox
        </a>
        <nav aria-label="Main">
            <a href="{{ route('sources') }}" @if(request()->routeIs('source*', 'shel*')) aria-current="page" @endif>Sources</a>
            <a href="{{ route('order.current') }}" @if(request()->routeIs('order*')) aria-current="page" @endif>Order sheet</a>
            <a href="{{ route('presets', 'recipe') }}" @if(request()->routeIs('preset*')) aria-current="page" @endif>Recipes</a>
            <a href="{{ route('results') }}" @if(request()->routeIs('result*')) aria-current="page" @endif>Results</a>
            <a href="{{ route('standing') }}" @if(request()->routeIs('standing*')) aria-current="page" @endif>Standing</a>
            <a href="{{ route('outside') }}" @if(request()->routeIs('outside*', 'drive*', 'disc*', 'recorder*', 'player*', 'publish*',
                'page*', 'catalogue*')) aria-current="page" @endif>Outside</a>
            <a href="{{ route('settings') }}" @if(request()->routeIs('setting*', 'bin*', 'interface')) aria-current="page"
                @endif>Settings</a>
        </nav>
        <div id="work" class="work"></div>
    </header>
    <p id="told" class="said told" role="status" hidden></p>
    <main id="main" tabindex="-1" @hasSection('morphs') hx-ext="morph" @endif>
        @if($low !== '')<div class="said said-stop" role="alert">{{ $low }} <a href="{{ route('room') }}">See what can be freed</a></div>
            @endif
        @if(request()->hasSession() && session('said'))
            <div class="said" role="status">{{ session('said') }}
                @if(session('undo'))<form class="in-line" method="post" action="{{ route('sources.back') }}">@csrf<input type="hidden"
                    name="sources" value="{{ implode(',', session('undo')) }}"><button class="link" type="submit">Put it back</button>
                    </form>@endif
            </div>
        @endif
        @yield('content')
    </main>
</body>
</html>
