<div class="choices">
    <div class="choice"><label for="title">Title</label><input id="title" name="title" type="text"
        value="{{ old('title', $standing->title) }}" placeholder="Recorder to podcast"></div>
    <div class="choice"><label for="shelf">Shelf</label><select id="shelf" name="shelf">@foreach($page->shelves() as $shelf)<option
        @selected(old('shelf', $standing->shelf) === $shelf)>{{ $shelf }}</option>@endforeach</select></div>
    <div class="choice"><label for="folder">Folder on it</label><input id="folder" name="folder" type="text"
        value="{{ old('folder', $standing->folder) }}" placeholder="the whole shelf" spellcheck="false"><label class="tickline"><input
        type="checkbox" name="nested" value="1" @checked(old('nested', $standing->nested ? '1' : '') === '1')> and folders within</label>
        </div>
    <div class="choice choice-goes"><label for="goes">What is made of each file</label><select id="goes" name="goes"><option
        value="">choose</option>@foreach($page->goes() as $group => $choices)<optgroup
        label="{{ $group }}">@foreach($choices as $value => $label)<option value="{{ $value }}"
        @selected(old('goes', $standing->goes) === $value)>{{ $label }}</option>@endforeach</optgroup>@endforeach</select></div>
    <div class="choice"><label for="place">Place</label><select id="place" name="place">@foreach($page->places() as $value => $label)<option
        value="{{ $value }}" @selected(old('place', $standing->place) === $value)>{{ $label }}</option>@endforeach</select></div>
    <div class="choice choice-name"><label for="name">Name</label><input id="name" name="name" type="text"
        value="{{ old('name', $standing->name) }}" placeholder="{{ '{stem}' }}" spellcheck="false"><p
        class="note">{{ '{stem}' }} is the original name, {{ '{today}' }} the day</p></div>
</div>
