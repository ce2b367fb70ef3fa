<div class="choices">
    <div class="choice choice-wide"><label for="title">Title</label><input id="title" name="title" type="text" maxlength="120" required
        value="{{ old('title', $editor->known->what->title) }}"></div>
    <div class="choice choice-name"><label for="note">What it is for</label><input id="note" name="note" type="text" maxlength="400"
        value="{{ old('note', $editor->known->what->note) }}"></div>
</div>
