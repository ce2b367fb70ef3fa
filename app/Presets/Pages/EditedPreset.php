<?php

declare(strict_types=1);

namespace App\Presets\Pages;

use App\Lists\Humanize;
use App\Orders\Pages\FieldChoices;
use App\Presets\Values\KnownPreset;
use App\Presets\Values\PresetKind;
use App\Sources\Models\Source;
use Illuminate\Database\Eloquent\Collection;
use Octavox\Core\Destination\Acceptance;
use Octavox\Core\Destination\Destination;
use Octavox\Core\Tag\TagField;

/** A recipe or a destination on its own page. */
final readonly class EditedPreset
{
    /**
     * @param  FieldChoices  $choices  of what is made, with what would come of the chosen source
     * @param  Collection<int, Source>  $sources  that it can be tried on
     * @param  string  $refusal  why nothing would come of it; empty where something would
     */
    public function __construct(public PresetKind $kind, public KnownPreset $known, public FieldChoices $choices,
        public Collection $sources,
        public ?int $chosen, public string $refusal) {}

    /** @return list<Acceptance> */
    public function accepts(): array
    {
        return $this->known->what instanceof Destination ? $this->known->what->accepts : [];
    }

    public function destination(): ?Destination
    {
        return $this->known->what instanceof Destination ? $this->known->what : null;
    }

    /** @return list<string> rules of what is wanted of every file, in words */
    public function wants(): array
    {
        $limits = $this->destination()?->limits;

        return $limits === null ? [] : array_values(array_filter([
            $limits->mostBytes === null ? '' : 'at most '.Humanize::bytes($limits->mostBytes),
            $limits->mostSeconds === null ? '' : 'at most '.Humanize::clock($limits->mostSeconds),
            $limits->mostNameBytes === null ? '' : 'names of at most '.$limits->mostNameBytes.' bytes',
            $limits->plainName ? 'names of plain letters and figures' : '',
            $limits->tags === [] ? ''
                : 'tags: '.implode(', ', array_map(fn (TagField $field): string => str_replace('_', ' ', $field->value),
                    $limits->tags)),
            $limits->plainTags ? 'tags without emoji and control characters' : '',
            $limits->cover ? 'a cover' : '',
            $limits->broadcast ? 'fields of Broadcast WAV' : '',
            $limits->indexFirst ? 'the index at the start' : '',
            $limits->mostLufs === null ? '' : 'at most '.$limits->mostLufs.' LUFS',
        ], fn (string $one): bool => $one !== ''));
    }
}
