@extends('layout')
@section('title', 'Settings')
@section('content')
    <div class="title-row"><h1>Settings</h1><p class="lead">For the whole application. What the environment sets is shown here and changed
        there.</p></div>
    <section aria-labelledby="shelves-title">
        <h2 id="shelves-title">Shelves</h2>
        <p class="note">Folders of this machine that Octavox may read. It never reaches outside them and never changes what is in them.
            Results can be written to those that are open for writing, and an order can move its sources there into the bin.</p>
        <table class="ledger">
            <caption class="unseen">Shelves</caption>
            <thead><tr><th>Name</th><th>Folder</th><th>Results on it</th><th><span class="unseen">What can be done</span></th></tr></thead>
            <tbody>
            @foreach($page->fixed() as $shelf)
                <tr><td>{{ $shelf->name }}</td><td><code>{{ $shelf->root }}</code></td>
                    <td>{{ $shelf->isWritable ? 'may be put there' : 'no' }}</td><td class="quiet">set by the environment</td></tr>
            @endforeach
            @foreach($page->own() as $shelf)
                <tr><td>{{ $shelf->name }}</td><td><code>{{ $shelf->root }}</code>@if(! is_dir($shelf->root)) <span
                    class="fault">not there now</span>@endif</td><td>{{ $shelf->isWritable ? 'may be put there' : 'no' }}</td>
                    <td><form method="post" action="{{ route('settings.shelf') }}">@csrf<input type="hidden" name="name"
                        value="{{ $shelf->name }}">
                        <button class="link" name="do" value="{{ $shelf->isWritable ? 'forbid' : 'allow' }}"
                            aria-label="{{ $shelf->isWritable ? 'no results any more' : 'let results be put' }} on {{ $shelf->name }}">{{
                            $shelf->isWritable ? 'no results any more' : 'let results be put there' }}</button>
                        <button class="link" name="do" value="close" aria-label="close {{ $shelf->name }}">close</button></form></td></tr>
            @endforeach
            @if($page->fixed() === [] && $page->own() === [])<tr><td colspan="4">No folder is open yet.</td></tr>@endif
            </tbody>
        </table>
        <form class="choices" method="post" action="{{ route('settings.open') }}">
            @csrf
            <div class="choice"><label for="shelf-name">Name</label><input id="shelf-name" name="name" type="text" value="{{ old('name') }}"
                placeholder="Recorder"></div>
            <div class="choice choice-wide"><label for="shelf-path">Folder</label><input id="shelf-path" name="path" type="text"
                value="{{ old('path') }}" placeholder="/home/canal/recordings" spellcheck="false"><p class="note">its whole path</p></div>
            <div class="choice"><span class="label">Results</span><label class="tickline"><input type="checkbox" name="writable" value="1"
                @checked(old('writable') === '1')> may be put there</label></div>
            <div class="choice"><span class="label">&nbsp;</span><button class="act act-quiet" type="submit">Open this folder</button></div>
        </form>
    </section>
    <form id="settings-form" method="post" action="{{ route('settings.update') }}">
        @csrf @method('put')
        <h2>New orders</h2>
        <div class="choices">
            <div class="choice choice-goes"><label for="goes">Go to</label><select id="goes" name="goes"><option
                value="">Made by hand</option>@foreach($page->goes() as $group => $choices)<optgroup
                label="{{ $group }}">@foreach($choices as $value => $label)<option value="{{ $value }}"
                @selected($page->text('goes') === $value)>{{ $label }}</option>@endforeach</optgroup>@endforeach</select></div>
            <div class="choice"><label for="place">Place</label><select id="place"
                name="place">@foreach($page->places() as $value => $label)<option value="{{ $value }}"
                @selected($page->text('place') === $value)>{{ $label }}</option>@endforeach</select><p
                class="note">among the results means {{ $page->results() }}</p></div>
            @foreach(['name_signs' => 'Emoji in names', 'tag_signs' => 'Emoji in tags'] as $field => $label)
                <div class="choice"><label for="{{ $field }}">{{ $label }}</label><select id="{{ $field }}" name="{{ $field }}"><option
                    value="">as usual: kept</option>@foreach($page->signs() as $value => $word)<option value="{{ $value }}"
                    @selected($page->text($field) === $value)>{{ $word }}</option>@endforeach</select><p
                    class="note">and control characters</p></div>
            @endforeach
            <div class="choice"><label for="care">The sources</label><select id="care"
                name="care">@foreach($page->cares() as $value => $word)<option value="{{ $value }}"
                @selected($page->text('care') === $value)>{{ $word }}</option>@endforeach</select><p
                class="note">what is on a shelf goes into the bin only where it is open for writing</p></div>
            <div class="choice"><label for="copies_on">Safe copies lie</label><select id="copies_on" name="copies_on"><option
                value="">with Octavox</option>@foreach($page->writable() as $name)<option
                @selected($page->text('copies_on') === $name)>{{ $name }}</option>@endforeach</select><p
                class="note">with their sums, in a folder for each order</p></div>
        </div>
        <h2>Making</h2>
        <div class="choices">
            <div class="choice"><label for="workers">Results at once</label><input id="workers" name="workers" type="text"
                inputmode="numeric" size="14" value="{{ $page->text('workers') }}" placeholder="one a processor"><p
                class="note">empty for one a processor</p></div>
            <div class="choice"><span class="label">When an order is done</span>
                <input type="hidden" name="ring" value="0"><label class="tickline"><input type="checkbox" name="ring" value="1"
                    @checked($page->is('ring'))> ring</label>
                <input type="hidden" name="notify" value="0"><label class="tickline"><input type="checkbox" name="notify" value="1"
                    @checked($page->is('notify')) data-asks-notify> let the browser tell it</label>
                <p class="note" data-notify-note>on every page that is open</p></div>
            <div class="choice"><span class="label">&nbsp;</span><button class="act act-quiet" type="button" data-ring>Hear it</button>
                </div>
        </div>
        <h2>Room</h2>
        <div class="choices">
            <div class="choice"><label for="free_gigabytes">Gigabytes that stay free</label><input id="free_gigabytes" name="free_gigabytes"
                type="text" inputmode="numeric" size="7" value="{{ $page->text('free_gigabytes') }}" placeholder="1"><p
                class="note">on the drive of Octavox and on those that results go to; below it new work waits</p></div>
        </div>
        <h2>Published at</h2>
        <div class="choices">
            <div class="choice choice-wide"><label for="public_address">Public address</label><input id="public_address"
                name="public_address" type="url" value="{{ $page->text('public_address') }}" placeholder="https://sound.example"
                spellcheck="false"><p class="note">in feeds, where others reach Octavox; empty for the address at which the feed is asked
                for</p></div>
        </div>
        <h2>Uploads</h2>
        <div class="choices">
            @foreach(['upload_gigabytes' => ['Largest, in gigabytes', $page->gigabytes()], 'upload_hours' =>
                ['Unfinished ones go after hours', $page->hours()]] as $field => [$label, $is])
                <div class="choice"><label for="{{ $field }}">{{ $label }}</label><input id="{{ $field }}" name="{{ $field }}" type="text"
                    inputmode="numeric" size="7" value="{{ $page->isFixed($field) ? $is : $page->text($field) }}" placeholder="{{ $is }}"
                    @disabled($page->isFixed($field))>@if($page->isFixed($field))<p class="note">set by the environment</p>@endif</div>
            @endforeach
        </div>
        <p><button class="act" type="submit">Set it</button></p>
    </form>
    <section id="decoders" aria-labelledby="decoders-title">
        <h2 id="decoders-title">Decoders from outside</h2>
        <p class="note">For a codec that nothing here decodes, a program of this machine can: it is begun with the path of the file and
            writes WAV to its standard output. What it gives is held against what the file announces, and every result is verified as
            always.</p>
        <table class="ledger">
            <caption class="unseen">Decoders from outside</caption>
            <thead><tr><th>Codec</th><th>Command</th><th><span class="unseen">What can be done</span></th></tr></thead>
            <tbody>
            @forelse($page->decoders() as $codec => [$command, $isThere])
                <tr><td>{{ $codec }}</td><td><code>{{ $command }}</code>@if(! $isThere) <span class="fault">not there now</span>@endif</td>
                    <td><form method="post" action="{{ route('settings.decoder') }}">@csrf<input type="hidden" name="codec"
                        value="{{ $codec }}"><button class="link" name="forget" value="1" type="submit"
                        aria-label="take away the decoder of {{ $codec }}">take away</button></form></td></tr>
            @empty
                <tr><td colspan="3">None is named.</td></tr>
            @endforelse
            </tbody>
        </table>
        <form class="choices" method="post" action="{{ route('settings.decoder') }}">
            @csrf
            <div class="choice"><label for="decoder-codec">Codec</label><input id="decoder-codec" name="codec" type="text"
                list="decoder-codecs" value="{{ old('codec') }}" spellcheck="false"><datalist
                id="decoder-codecs">@foreach(['windows-media', 'eac3', 'truehd', 'ape', 'tta', 'musepack', 'dsd'] as $name)<option
                value="{{ $name }}"></option>@endforeach</datalist><p class="note">as the command line calls it</p></div>
            <div class="choice choice-wide"><label for="decoder-command">Command</label><input id="decoder-command" name="command"
                type="text" value="{{ old('command') }}" placeholder="/usr/local/bin/decode {path} {track}" spellcheck="false"><p
                class="note">{{ '{path}' }} is the file, {{ '{track}' }} the number of the sound track</p></div>
            <div class="choice"><span class="label">&nbsp;</span><button class="act act-quiet" type="submit">Name this decoder</button>
                </div>
        </form>
    </section>
    <section id="scripts" aria-labelledby="scripts-title">
        <h2 id="scripts-title">Scripts</h2>
        <p class="note">A script that sends a token may do what the token allows: <a
            href="{{ route('interface') }}">how that is done, with examples</a>. A token is shown once, when it is made.</p>
        @if(session('token'))
            <div class="said token-made"><label for="token">The new token. Copy it now: it is not shown again.</label> <input id="token"
                type="text" readonly size="56" value="{{ session('token') }}" data-select-all spellcheck="false"></div>
        @endif
        <table class="ledger">
            <caption class="unseen">Tokens</caption>
            <thead><tr><th>Name</th><th>Allows to</th><th>Made</th><th>Used last</th><th><span class="unseen">What can be done</span></th>
                </tr></thead>
            <tbody>
            @forelse($page->tokens() as $token)
                <tr><td>{{ $token->title }}</td><td>{{ implode(', ', $token->mays()) }}</td>
                    <td>{{ $token->created_at->format('j M Y') }}</td><td>{{ $token->used_at?->diffForHumans() ?? 'never' }}</td>
                    <td><form method="post" action="{{ route('settings.token.withdraw', $token->id) }}">@csrf @method('delete')<button
                        class="link" type="submit" aria-label="take back {{ $token->title }}">take back</button></form></td></tr>
            @empty
                <tr><td colspan="5">There is no token, so scripts cannot do anything.</td></tr>
            @endforelse
            </tbody>
        </table>
        <form class="choices" method="post" action="{{ route('settings.token') }}">
            @csrf
            <div class="choice"><label for="token-title">Name of the token</label><input id="token-title" name="title" type="text"
                value="{{ old('title') }}" placeholder="Nightly job" maxlength="60"></div>
            <div class="choice choice-wide"><span class="label">Allows to</span>
                @foreach($page->scopes() as $scope)<label class="tickline"><input type="checkbox" name="{{ $scope->value }}" value="1"
                    @checked($scope->value === 'read')> {{ $scope->label() }}</label>@endforeach
            </div>
            <div class="choice"><span class="label">&nbsp;</span><button class="act act-quiet" type="submit">Make a token</button></div>
        </form>
    </section>
    @if($page->recorders() !== [])
        <section aria-labelledby="recorders-title">
            <h2 id="recorders-title">Recorders that write no headers</h2>
            <table class="ledger">
                <caption class="unseen">Recorders that write no headers</caption>
                <thead><tr><th>Files that end in</th><th>Recorder</th><th>Are read as</th><th><span
                    class="unseen">What can be done</span></th></tr></thead>
                <tbody>@foreach($page->recorders() as $one)<tr><td>.{{ $one->extension }}</td><td>{{ $one->recorder }}</td>
                    <td>{{ $one->label() }}</td><td><form method="post"
                    action="{{ route('settings.recorder', $one->extension) }}">@csrf @method('delete')<button class="link" type="submit"
                    aria-label="forget .{{ $one->extension }}">forget</button></form></td></tr>@endforeach</tbody>
            </table>
        </section>
    @endif
    <section aria-labelledby="bin-title">
        <h2 id="bin-title">Bin</h2>
        @if($page->bin()->isEmpty())<p>Nothing is in it.</p>
        @else
            <p>{{ $page->bin()->says() }}. <a href="{{ route('bin') }}">What is in it</a></p>
        @endif
    </section>
@endsection
