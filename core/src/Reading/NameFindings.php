<?php

declare(strict_types=1);

namespace Octavox\Core\Reading;

use Octavox\Core\Media\Findings;
use Octavox\Core\Media\Severity;
use Octavox\Core\Name\Signs;
use Octavox\Core\Tag\Tags;

/** What in a file's name and tags makes importers fail. */
final class NameFindings
{
    /** Bytes of a name at which some file systems of players and some archives stop: ISO 9660 level 3 with Joliet, 64 characters of two. */
    private const LONG = 128;

    private const MOST_FIELDS = 4;

    /** @return list<Finding> */
    public static function find(string $path, Tags $tags): array
    {
        $name = basename($path);
        $findings = [];
        if (Signs::areIn($name)) {
            $findings[] = (new Finding(new Findings\NameSigns(what: self::what($name)), Severity::Note))
                ->mendedBy(['name_signs' => 'remove']);
        }
        if (strlen($name) > self::LONG) {
            $findings[] = new Finding(new Findings\LongName(bytes: strlen($name), most: self::LONG), Severity::Note);
        }
        $fields = array_filter($tags->values(), fn (string $value): bool => Signs::areIn(str_replace(["\r", "\n", "\t"], ' ', $value)));
        if ($fields !== []) {
            $shown = array_slice(array_keys($fields), 0, self::MOST_FIELDS);
            $findings[] = (new Finding(new Findings\TagSigns(what: self::what(implode(' ', $fields)), fields: str_replace('_', ' ',
                implode(', ', $shown)).(count($fields) > count($shown) ? ' and others' : '')), Severity::Note))
                ->mendedBy(['tag_signs' => 'remove']);
        }

        return $findings;
    }

    private static function what(string $text): string
    {
        return implode(' and ',
            array_keys(array_filter(['emoji' => Signs::hasPictures($text), 'control characters' => Signs::hasControls($text)])));
    }
}
