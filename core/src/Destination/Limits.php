<?php

declare(strict_types=1);

namespace Octavox\Core\Destination;

use Octavox\Core\Name\Signs;
use Octavox\Core\Order\SpecFields;
use Octavox\Core\Order\SpecInvalid;
use Octavox\Core\Tag\TagField;
use Octavox\Core\Tag\Tags;

/** What a destination wants of every file, whatever its kind. */
final readonly class Limits
{
    private const FIELDS = ['most_bytes', 'most_seconds', 'most_name_bytes', 'plain_name', 'tags', 'plain_tags', 'cover', 'most_lufs',
        'broadcast', 'index_first'];

    private const MOST = PHP_INT_MAX >> 1;

    /** The absolute gate: ITU-R BS.1770-4, annex 1. */
    private const LEAST_LUFS = -70;

    /**
     * @param  ?int  $mostNameBytes  in UTF-8, with the extension
     * @param  bool  $plainName  whether a name may hold only letters and figures without accents, spaces, and . _ - ( )
     * @param  list<TagField>  $tags  that must be filled
     * @param  ?int  $mostLufs  integrated loudness, ITU-R BS.1770
     * @param  bool  $broadcast  whether there must be what broadcasters say, EBU Tech 3285
     * @param  bool  $indexFirst  whether an index must stand before what it tells of
     * @param  bool  $plainTags  whether tags must be without emoji and control characters
     */
    private function __construct(public ?int $mostBytes, public ?int $mostSeconds, public ?int $mostNameBytes, public bool $plainName,
        public array $tags, public bool $cover, public ?int $mostLufs, public bool $plainTags = false,
        public bool $broadcast = false, public bool $indexFirst = false) {}

    /**
     * @param  array<array-key, mixed>  $document
     *
     * @throws SpecInvalid which names the field
     */
    public static function fromArray(array $document): self
    {
        $fields = new SpecFields($document, self::FIELDS, 'limits.');
        $tags = array_map(fn (string $name): TagField => TagField::tryFrom($name)
            ?? throw $fields->wrong('tags', 'a list of fields of tags'),
            $fields->texts('tags') ?? []);

        return new self($fields->number('most_bytes', 1, self::MOST), $fields->number('most_seconds', 1, self::MOST),
            $fields->number('most_name_bytes', 8, 255), $fields->bool('plain_name') ?? false, $tags, $fields->bool('cover') ?? false,
            $fields->number('most_lufs', self::LEAST_LUFS, 0), $fields->bool('plain_tags') ?? false,
            $fields->bool('broadcast') ?? false,
            $fields->bool('index_first') ?? false);
    }

    /** @return array<string, mixed> only what is said */
    public function toArray(): array
    {
        return array_filter([
            'most_bytes' => $this->mostBytes, 'most_seconds' => $this->mostSeconds, 'most_name_bytes' => $this->mostNameBytes,
            'plain_name' => $this->plainName ? true : null, 'tags' => array_map(fn (TagField $field): string => $field->value, $this->tags),
            'plain_tags' => $this->plainTags ? true : null, 'cover' => $this->cover ? true : null, 'most_lufs' => $this->mostLufs,
            'broadcast' => $this->broadcast ? true : null, 'index_first' => $this->indexFirst ? true : null,
        ], fn (mixed $value): bool => $value !== null && $value !== []);
    }

    /** @return list<Rejection> */
    public function refuses(Facts $facts): array
    {
        $unfit = [];
        if ($facts->sounds === []) {
            $unfit[] = FitWords::noSound();
        }
        if ($this->mostBytes !== null && $facts->bytes > $this->mostBytes) {
            $unfit[] = FitWords::size($facts->bytes, $this->mostBytes);
        }
        if ($this->mostSeconds !== null && $facts->seconds > $this->mostSeconds) {
            $unfit[] = FitWords::duration($facts->seconds, $this->mostSeconds);
        }
        if ($this->mostNameBytes !== null && strlen($facts->name) > $this->mostNameBytes) {
            $unfit[] = FitWords::nameLength(strlen($facts->name), $this->mostNameBytes);
        }
        if ($this->plainName && preg_match('/^[A-Za-z0-9 ._()-]+$/', $facts->name) !== 1) {
            $unfit[] = FitWords::nameCharacters();
        }
        array_push($unfit, ...$this->missingTags($facts->tags));
        $choking = $this->plainTags ? array_keys(array_filter($facts->tags->values(), Signs::areIn(...))) : [];
        if ($choking !== []) {
            $unfit[] = FitWords::tagCharacters(str_replace('_', ' ', implode(', ', $choking)));
        }
        array_push($unfit, ...$this->missingCover($facts->hasCover));
        if ($this->mostLufs !== null && $facts->sounds !== [] && ($facts->loudness === null || $facts->loudness > $this->mostLufs)) {
            $unfit[] = FitWords::loudness($facts->loudness, $this->mostLufs);
        }
        if ($this->indexFirst && $facts->isIndexLast) {
            $unfit[] = FitWords::index();
        }
        if ($this->broadcast && ! $facts->hasBroadcast) {
            $unfit[] = FitWords::broadcast();
        }

        return $unfit;
    }

    /** @return list<Rejection> for tags that must be filled and are not */
    public function missingTags(Tags $tags): array
    {
        return array_values(array_map(FitWords::tag(...),
            array_filter($this->tags, fn (TagField $field): bool => $tags->all($field) === [])));
    }

    /** @return list<Rejection> */
    public function missingCover(bool $hasCover): array
    {
        return $this->cover && ! $hasCover ? [FitWords::cover()] : [];
    }
}
