<?php

declare(strict_types=1);

namespace Octavox\Core\Tag;

/** What of tags a kind of file has a place for. */
final readonly class TagRoom
{
    /**
     * @param  ?list<TagField>  $fields  null for all
     * @param  bool  $free  fields that only go by a name
     * @param  bool  $several  several values of one field, each for itself
     * @param  bool  $cover  a picture
     */
    public function __construct(public ?array $fields = null, public bool $free = true, public bool $several = true,
        public bool $cover = true) {}

    public static function nothing(): self
    {
        return new self([], false, false, false);
    }

    /** Each with one value, and no picture. */
    public static function only(TagField ...$fields): self
    {
        return new self(array_values($fields), false, false, false);
    }

    public function holds(TagField $field): bool
    {
        return $this->fields === null || in_array($field, $this->fields, true);
    }

    /** @return list<string> names of what some tags hold, and a file of this kind does not: fields, and `cover` */
    public function lost(Tags $tags, bool $hasCover): array
    {
        $lost = array_filter(array_keys($tags->toArray()), function (string $name): bool {
            $field = TagField::tryFrom($name);

            return $field === null ? ! $this->free : ! $this->holds($field);
        });

        return [...array_values($lost), ...($hasCover && ! $this->cover ? ['cover'] : [])];
    }
}
