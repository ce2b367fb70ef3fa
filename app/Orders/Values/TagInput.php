<?php

declare(strict_types=1);

namespace App\Orders\Values;

use Octavox\Core\Tag\FreeName;
use Octavox\Core\Tag\TagField;

/** What was typed into fields of tags, as a spec says it: several values are separated by semicolons, an empty field takes the tag away. */
final class TagInput
{
    /** Tags that have a field of their own in any case. */
    public const USUAL = [TagField::Title, TagField::Artist, TagField::Album, TagField::AlbumArtist, TagField::Track, TagField::Disc,
        TagField::Year, TagField::Genre, TagField::Comment, TagField::Copyright];

    private const MOST = 200;

    private const BETWEEN = ';';

    /** Fields of which one value may hold a semicolon. */
    private const WHOLE = [TagField::Comment, TagField::Lyrics, TagField::Copyright];

    /** @return array<string, string|list<string>|null> by the field; those that no tag can have are left out */
    public static function read(mixed $input): array
    {
        $tags = [];
        foreach (is_array($input) ? array_slice($input, 0, self::MOST, true) : [] as $name => $value) {
            $field = TagField::tryFrom((string) $name);
            $name = $field === null ? FreeName::clean(mb_scrub((string) $name)) : $field->value;
            if ($name !== null && ($value === null || is_string($value))) {
                $tags[$name] = self::values($field, trim(mb_scrub((string) $value)));
            }
        }

        return $tags;
    }

    /** @return string|list<string>|null */
    private static function values(?TagField $field, string $value): string|array|null
    {
        if ($value === '' || in_array($field, self::WHOLE, true) || ! str_contains($value, self::BETWEEN)) {
            return $value === '' ? null : $value;
        }
        $values = array_values(array_filter(array_map(trim(...), explode(self::BETWEEN, $value)), fn (string $one): bool => $one !== ''));

        return count($values) < 2 ? ($values[0] ?? null) : $values;
    }
}
