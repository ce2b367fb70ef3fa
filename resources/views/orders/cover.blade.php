{{-- Choosing a cover: for one line, or for the marked ones, or all. $id keeps the forms of one page apart. --}}
<form id="cover-{{ $id }}" class="cover-choice" method="post" action="{{ route('order.cover', $order) }}" enctype="multipart/form-data"
    data-cover>
    @csrf
    <input type="hidden" name="line" value="{{ $line }}">
    @if($shown !== null)<img class="cover" src="{{ route(...$shown) }}" alt="The cover that the result gets">@endif
    <label class="cover-drop">Cover <span class="under">drop a picture here, or choose one</span><input type="file" name="picture"
        accept="image/jpeg,image/png,image/webp,image/gif"></label>
    <label>at most <select name="side">@foreach([1400 => '1,400 pixels', 600 => '600 pixels', 3000 => '3,000 pixels', 0 =>
        'as it is'] as $side => $label)<option value="{{ $side }}">{{ $label }}</option>@endforeach</select></label>
    <button class="act act-quiet" type="submit">Give this cover</button>
    <button class="act act-quiet" type="submit" name="what" value="none">No cover</button>
    <button class="act act-quiet" type="submit" name="what" value="own">As the source</button>
</form>
