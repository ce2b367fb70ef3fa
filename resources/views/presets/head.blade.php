    <div class="title-row"><h1>{{ $editor->known->what->title }}</h1><p
        class="lead">{{ $editor->known->isOwn ? 'A '.$editor->kind->value.' of yours.' : 'It ships with Octavox; copy it to change it.'
        }}</p>
        <div class="title-acts"><a href="{{ route('presets', $editor->kind) }}">All {{ mb_strtolower($editor->kind->plural()) }}</a></div>
            </div>
