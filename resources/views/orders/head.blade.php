<div id="head" hx-swap-oob="morph" data-name="{{ $sheet->choices->form->name() }}">
    <div class="choice choice-goes">
        <label for="goes">Goes to</label>
        <select id="goes" name="goes">
            <option value="">Made by hand</option>
            <optgroup label="To where it is used: the least change that is accepted there">
                @foreach($sheet->head->destinations as $name => $one)<option value="to:{{ $name }}"
                    @selected($sheet->head->goes() === 'to:'.$name)>{{ $one->starred ? '★ ' : '' }}{{ $one->what->title }}</option>
                    @endforeach
            </optgroup>
            <optgroup label="By a recipe">
                @foreach($sheet->head->recipes as $name => $one)<option value="by:{{ $name }}"
                    @selected($sheet->head->goes() === 'by:'.$name)>{{ $one->starred ? '★ ' : '' }}{{ $one->what->title }}</option>
                    @endforeach
            </optgroup>
        </select>
        <p class="note">{{ $sheet->head->note() }}</p>
        @if($sheet->head->differs !== [])
            <p class="note differs">Other than the recipe: @foreach($sheet->head->differs as $field => $words)<button type="button"
                class="chip" name="back" value="{{ $field }}" hx-patch="{{ route('order.update', $sheet->order) }}"
                hx-vals='{"back": "{{ $field }}"}' hx-swap="none" data-renews
                title="Set it back to what the recipe says">{{ $words }} <span aria-hidden="true">×</span><span
                class="unseen">, set back</span></button> @endforeach</p>
        @endif
    </div>
    <div class="choice">
        <label for="place">Place</label>
        <select id="place" name="place">
            @foreach($sheet->head->places as $value => $label)<option value="{{ $value }}"
                @selected($sheet->order->place === $value)>{{ $label }}</option>@endforeach
        </select>
        <p class="note">{{ count($sheet->head->places) > 1 ? 'folders of the name lie beneath it' : 'in a folder of this order’s own' }}</p>
    </div>
    <div class="choice">
        <label for="right">What is right already</label>
        <select id="right" name="right">
            @foreach(['copy' => 'copy it beside the others', 'leave' => 'leave it where it is'] as $value => $label)<option
                value="{{ $value }}" @selected(($sheet->choices->form->spec->ifRight?->value ?? ($sheet->order->destination === null ?
                'copy' : 'leave')) === $value)>{{ $label }}</option>@endforeach
        </select>
        <p class="note">{{ $sheet->totals->right === 0 ? 'none so far' : $sheet->totals->right.' of '.count($sheet->lines) }}</p>
    </div>
</div>
