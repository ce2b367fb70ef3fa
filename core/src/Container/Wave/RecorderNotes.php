<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Wave;

use Octavox\Core\Tag\TagField;
use Octavox\Core\Tag\Tags;

/** The `iXML` chunk, in which sound recorders on a set note scene, take and project: iXML Specification 3.01. */
final class RecorderNotes
{
    public const MOST_BYTES = 4 * 1024 * 1024;

    /** What the file's own tags say comes before what stands here. */
    public static function read(string $xml, Tags $tags): Tags
    {
        $before = libxml_use_internal_errors(true);
        // Nothing outside of the chunk is ever read: no network, no entities.
        $notes = str_contains($xml, '<!') ? false : simplexml_load_string(rtrim($xml, "\0 \r\n"), \SimpleXMLElement::class, LIBXML_NONET);
        libxml_clear_errors();
        libxml_use_internal_errors($before);
        if ($notes === false) {
            return $tags;
        }
        $said = fn (string $name): string => trim((string) ($notes->{$name} ?? ''));
        $take = implode(', ', array_filter([
            $said('SCENE') === '' ? '' : 'Scene '.$said('SCENE'),
            $said('TAKE') === '' ? '' : 'take '.$said('TAKE'),
        ]));
        foreach ([[TagField::Title, ucfirst($take)], [TagField::Album, $said('PROJECT')],
            [TagField::Comment, $said('NOTE')]] as [$field, $value]) {
            if ($value !== '' && $tags->get($field) === null) {
                $tags = $tags->with($field, $value);
            }
        }

        return $tags;
    }
}
