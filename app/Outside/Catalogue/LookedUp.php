<?php

declare(strict_types=1);

namespace App\Outside\Catalogue;

use App\Sources\Models\Source;
use Octavox\Core\Tag\TagField;

/** What a catalogue said of one source. */
final readonly class LookedUp
{
    /** From this confidence on a candidate is proposed; below, somebody has to choose it. */
    private const SURE = 0.5;

    /**
     * @param  string  $by  `disc`, `sound` or `words`; empty where nothing could be asked
     * @param  list<Candidate>  $candidates
     * @param  string  $says  why there is nothing; empty where there is
     */
    public function __construct(public Source $source, public string $by, public array $candidates, public string $says) {}

    /** Which one is proposed; null where none is. */
    public function proposed(): ?int
    {
        return ($this->candidates[0] ?? null) !== null && $this->candidates[0]->confidence >= self::SURE ? 0 : null;
    }

    /** What the source says of itself, by the name of the field. */
    public function there(string $field): string
    {
        return (string) $this->source->facts()?->tags->get(TagField::from($field));
    }

    /** @return array<string, string> names for people of the fields that any candidate knows */
    public function fields(): array
    {
        return array_filter(Candidate::FIELDS, fn (string $field): bool => array_filter($this->candidates,
            fn (Candidate $one): bool => isset($one->fields[$field])) !== [], ARRAY_FILTER_USE_KEY);
    }
}
