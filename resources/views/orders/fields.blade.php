{{-- The fields of a spec, for an order, a line or a recipe; $prefix keeps their names apart on one page. --}}
<div class="choice">
    <label for="{{ $prefix }}format">Make</label>
    <select id="{{ $prefix }}format" name="format">
        @if($choices->hasDestination)<option value="" @selected($choices->form->format() === '')>What changes least</option>@endif
        @foreach($offer->formats() as $group => $formats)
            <optgroup label="{{ $group }}">
                @foreach($formats as $format)<option value="{{ $format->name() }}"
                    @selected($choices->form->format() === $format->name())>{{ $format->label() }}</option>@endforeach
            </optgroup>
        @endforeach
    </select>
    <p class="note">{{ $choices->formatNote() }}</p>
</div>
@if($choices->form->video())
    <div class="choice">
        <label for="{{ $prefix }}sound">Sound</label>
        <select id="{{ $prefix }}sound" name="sound">
            <option value="">Kept</option>
            @foreach($choices->videoSounds() as $format)<option value="{{ $format->name() }}"
                @selected($choices->form->sound()->codec === $format->name())>{{ $format->name() === 'wav' ? 'PCM' : $format->label()
                }}</option>@endforeach
        </select>
        <p class="note">{{ $choices->form->sound()->codec === null ? 'where the video carries it, else '.($choices->form->encoder()->name()
            === 'wav' ? 'PCM' : $choices->form->encoder()->label()) : 'all of it is encoded again' }}</p>
    </div>
@endif
@if($choices->hasFormat() && $choices->form->hasQuality())
    <div class="choice">
        <label for="{{ $prefix }}quality">Quality</label>
        <select id="{{ $prefix }}quality" name="quality">
            <optgroup label="By name">
                @foreach($offer->qualities($choices->form->encoder()->capabilities()) as $quality)<option value="{{ $quality->value }}"
                    @selected($choices->form->quality() === $quality->value)>{{ $quality->label() }}</option>@endforeach
            </optgroup>
            <optgroup label="By number">
                @foreach($choices->form->numbers() as $value => $label)<option value="{{ $value }}"
                    @selected($choices->form->quality() === $value)>{{ $label }}</option>@endforeach
            </optgroup>
        </select>
        <p class="note">{{ $choices->qualityNote() }}</p>
    </div>
@elseif($choices->hasFormat() && $choices->form->encoder()->capabilities()->bitDepths !== [])
    <div class="choice">
        <label for="{{ $prefix }}bits">Bit depth</label>
        <select id="{{ $prefix }}bits" name="bits">
            <option value="">As recorded</option>
            @foreach($choices->form->encoder()->capabilities()->bitDepths as $bits)<option value="{{ $bits }}"
                @selected($choices->form->sound()->bitDepth === $bits)>{{ $bits }} bits</option>@endforeach
        </select>
        <p class="note">{{ $choices->bitsNote() }}</p>
    </div>
@endif
@if($choices->hasFormat() && $choices->form->rates() !== [])
    <div class="choice">
        <label for="{{ $prefix }}rate">Rate</label>
        <select id="{{ $prefix }}rate" name="rate">
            <option value="">As recorded</option>
            @foreach($choices->form->rates() as $rate)<option value="{{ $rate }}"
                @selected($choices->form->sound()->rate === $rate)>{{ $say->rate($rate) }}</option>@endforeach
        </select>
        <p class="note">{{ $choices->rateNote() }}</p>
    </div>
@endif
@if($choices->tracks() !== [])
    <div class="choice">
        <label for="{{ $prefix }}track">Sound track</label>
        <select id="{{ $prefix }}track" name="track">
            @foreach($choices->tracks() as $value => $label)<option value="{{ $value }}"
                @selected((string) $choices->form->sound()->tracks === (string) $value)>{{ $label }}</option>@endforeach
        </select>
        <p class="note">{{ $choices->trackNote() }}</p>
    </div>
@endif
@if($choices->lengths() !== [])
    <div class="choice">
        <label for="{{ $prefix }}length">Length</label>
        <select id="{{ $prefix }}length" name="length">
            @foreach($choices->lengths() as $value => $label)<option value="{{ $value }}"
                @selected($choices->form->length()->isTime() ? $value === 'time' : $choices->form->length()->value === $value)>{{ $label
                }}</option>@endforeach
        </select>
        @if($choices->form->length()->isTime())<input name="length_time" id="{{ $prefix }}length_time" type="text" size="9"
            value="{{ $choices->form->length()->value }}" aria-label="Length, like 0:30 or 62.5">@endif
        <p class="note">{{ $choices->lengthNote() }}</p>
    </div>
@endif
<div class="choice">
    <label for="{{ $prefix }}layout">Channels</label>
    <select id="{{ $prefix }}layout" name="layout">
        @foreach($choices->layouts() as $value => $label)<option value="{{ $value }}"
            @selected($choices->form->layout() === (string) $value)>{{ $label }}</option>@endforeach
    </select>
    <p class="note">{{ $choices->layoutNote() }}</p>
</div>
<div class="choice @if($choices->form->sound()->level !== null) choice-level @endif">
    <label for="{{ $prefix }}level_kind">Level</label>
    <div class="level-fields">
        <select id="{{ $prefix }}level_kind" name="level_kind">
            @foreach(['none' => 'As it is', 'lufs' => 'Loudness', 'peak' => 'Peak', 'rms' => 'RMS', 'gain' => 'Gain'] as $value => $label)
                <option value="{{ $value }}" @selected($choices->form->levelFields()[0] === $value)>{{ $label }}</option>@endforeach
        </select>
        @if($choices->form->sound()->level !== null)
            <input name="level_value" id="{{ $prefix }}level_value" type="text" inputmode="decimal" size="5"
                value="{{ $choices->form->levelFields()[1] }}" aria-label="Level in {{ $choices->form->levelTarget()?->kind->unit() ?? 'dB'
                }}"><span class="unit">{{ $choices->form->levelTarget()?->kind->unit() }}</span>
            @if($choices->form->levelTarget()?->hasCeiling())<label class="ceiling">true peak at most <input name="level_ceiling"
                id="{{ $prefix }}level_ceiling" type="text" inputmode="decimal" size="4"
                value="{{ $choices->form->levelTarget()->ceiling }}"> dBFS</label>@endif
        @endif
    </div>
    @if($choices->form->sound()->level !== null && $together)<label class="tickline"><input type="checkbox" name="together"
        id="{{ $prefix }}together" value="1" @checked($choices->form->sound()->together === true)> one gain for all</label>@endif
    <p class="note">{{ $choices->levelNote() }}</p>
</div>
@if($choices->hasEncoderChoices())
    <details class="choice choice-encoder" id="{{ $prefix }}encoder">
        <summary>Encoder: {{ implode(', ', $choices->encoderWords()) ?: 'as usual' }}</summary>
        <div class="choices">
            @if($choices->offersHeld())
                <div class="choice">
                    <label for="{{ $prefix }}held">Bit rate held</label>
                    <select id="{{ $prefix }}held" name="held">
                        <option value="">As usual</option>
                        @foreach($choices->form->encoder()->capabilities()->rateModes as $mode)<option value="{{ $mode->value }}"
                            @selected($choices->form->sound()->rateControl?->mode === $mode)>{{ ucfirst($mode->value) }}</option>@endforeach
                    </select>
                    <p class="note">{{ $choices->heldNote() }}</p>
                </div>
            @endif
            @if($choices->form->encoder()->capabilities()->stereoCoding)
                <div class="choice">
                    <label for="{{ $prefix }}stereo">Stereo</label>
                    <select id="{{ $prefix }}stereo" name="stereo">
                        @foreach(['' => 'As usual', 'joint' => 'Joint', 'separate' => 'Separate'] as $value => $label)<option
                            value="{{ $value }}" @selected((string) $choices->form->sound()->stereo?->value === $value)>{{ $label
                            }}</option>@endforeach
                    </select>
                    <p class="note">joint saves bits where both sides are alike</p>
                </div>
            @endif
            @if($choices->form->encoder()->capabilities()->checksums)
                <div class="choice">
                    <span class="label">Checksums</span>
                    <label class="tickline"><input type="checkbox" name="checksums" id="{{ $prefix }}checksums" value="1"
                        @checked($choices->form->sound()->checksums === true)> in every frame</label>
                    <p class="note">two bytes each, by which damage is noticed</p>
                </div>
            @endif
            @if($choices->form->encoder()->capabilities()->compression !== [])
                <div class="choice">
                    <label for="{{ $prefix }}compression">Compression</label>
                    <select id="{{ $prefix }}compression" name="compression">
                        <option value="">As usual</option>
                        @foreach($choices->form->encoder()->capabilities()->compression as $level)<option value="{{ $level }}"
                            @selected($choices->form->sound()->compression === $level)>{{ $level }}</option>@endforeach
                    </select>
                    <p class="note">{{ $choices->compressionNote() }}</p>
                </div>
            @endif
            @if($choices->form->sound()->deEmphasis !== null)
                <div class="choice">
                    <span class="label">Pre-emphasis</span>
                    <label class="tickline"><input type="checkbox" name="de_emphasis" id="{{ $prefix }}de_emphasis" value="1"
                        @checked($choices->form->sound()->deEmphasis === true)> taken off</label>
                    <p class="note">of tracks of discs that have it</p>
                </div>
            @endif
            @if($choices->form->encoder()->capabilities()->bitDepths !== [])
                <div class="choice">
                    <label for="{{ $prefix }}dither">Fewer bits</label>
                    <select id="{{ $prefix }}dither" name="dither">
                        <option value="">Dithered</option>
                        <option value="off" @selected($choices->form->sound()->dither === false)>Rounded</option>
                    </select>
                    <p class="note">{{ $choices->ditherNote() }}</p>
                </div>
            @endif
        </div>
    </details>
@endif
@if($choices->hasFormat() && $choices->form->video() === null && $choices->form->encoder()->capabilities()->holdsBroadcast)
    <details class="choice choice-encoder" id="{{ $prefix }}broadcasting" @if($choices->form->spec->broadcast !== null) data-said @endif>
        <summary>Broadcast WAV: {{ $choices->form->spec->broadcast === null ? 'its fields only where the source has them' :
            'with its fields' }}</summary>
        <div class="choices">
            <div class="choice">
                <span class="label">Fields</span>
                <label class="tickline"><input type="checkbox" name="broadcast" id="{{ $prefix }}broadcast" value="1"
                    @checked($choices->form->spec->broadcast !== null)> always written</label>
                <p class="note">what is left empty is taken from the source and its tags</p>
            </div>
            @if($choices->form->spec->broadcast !== null)
                @foreach($choices->broadcast() as $field => [$label, $value, $hint])
                    <div class="choice"><label for="{{ $prefix }}{{ $field }}">{{ $label }}</label><input id="{{ $prefix }}{{ $field }}"
                        name="{{ $field }}" type="text" value="{{ $value }}" placeholder="{{ $hint }}"></div>
                @endforeach
            @endif
        </div>
    </details>
@endif
