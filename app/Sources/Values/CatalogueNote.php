<?php

declare(strict_types=1);

namespace App\Sources\Values;

use App\Files\Pictures;
use Octavox\Core\Reading\Reading;
use Octavox\Core\Tag\Chapter;
use Octavox\Core\Tag\DiscTrack;
use Octavox\Core\Tag\TagField;
use Octavox\Core\Tag\Tags;

/** What somebody accepted from a catalogue, as it lies over what a source says of itself. */
final readonly class CatalogueNote
{
    /**
     * @param  array<string, string>  $fields
     * @param  list<array<string, string>>  $tracks  of a disc, in their order
     */
    private function __construct(private array $fields, private array $tracks, private string $cover) {}

    public static function of(mixed $kept): ?self
    {
        $texts = fn (mixed $one): array => array_filter(is_array($one) ? $one : [],
            fn (mixed $text, int|string $name): bool => is_string($text)
            && is_string($name), ARRAY_FILTER_USE_BOTH);

        return ! is_array($kept) ? null : new self($texts($kept['fields'] ?? []),
            array_values(array_map($texts, is_array($kept['tracks'] ?? null) ? $kept['tracks'] : [])),
            is_string($kept['cover'] ?? null) ? $kept['cover'] : '');
    }

    public function over(Reading $reading): Reading
    {
        $tags = Tags::none();
        foreach ($this->fields as $field => $text) {
            $known = TagField::tryFrom($field);
            $tags = $known === null ? $tags : $tags->with($known, $text);
        }
        $number = 0;
        $chapters = array_map(function (Chapter $chapter) use (&$number): Chapter {
            // What is hidden before the first track is none of them.
            $track = $chapter->disc === null || $chapter->disc->number === 0 ? null : $this->tracks[$number++] ?? null;

            return $track === null ? $chapter : self::named($chapter, $track);
        }, $reading->chapters);

        return $reading->knownAs($tags->over($reading->tags), $chapters);
    }

    /** Path of the picture that goes with it; null where there is none, or it is gone. */
    public function cover(): ?string
    {
        return $this->cover === '' ? null : Pictures::there($this->cover);
    }

    /** @return array<string, string> */
    public function fields(): array
    {
        return $this->fields;
    }

    /** @param  array<string, string>  $track */
    private static function named(Chapter $chapter, array $track): Chapter
    {
        $disc = $chapter->disc;
        $title = $track['title'] ?? '';
        $performer = $track['performer'] ?? '';

        return $title === '' || $disc === null ? $chapter : new Chapter($chapter->starts, $title, new DiscTrack($disc->number, $title,
            $performer, ($track['isrc'] ?? '') === '' ? $disc->isrc : $track['isrc'], $disc->ends, $disc->isEmphasised));
    }
}
