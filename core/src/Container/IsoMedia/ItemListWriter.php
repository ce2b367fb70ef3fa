<?php

declare(strict_types=1);

namespace Octavox\Core\Container\IsoMedia;

use Octavox\Core\Tag\TagField;
use Octavox\Core\Tag\Tags;

/** Writes tags and cover as `udta/meta/ilst`. */
final class ItemListWriter
{
    /** Kinds of data: text in UTF-8, JPEG, PNG, and numbers without a kind. */
    private const TEXT = 1;

    private const JPEG = 13;

    private const PNG = 14;

    private const BYTES = 0;

    /** @param  string  $more  boxes that stand beside the list, such as chapters */
    public static function box(Tags $tags, string $more = ''): string
    {
        $items = '';
        foreach (TagField::cases() as $field) {
            $value = $tags->get($field);
            if ($value !== null) {
                $items .= Boxes::box($field->item(), in_array($field, [TagField::Track, TagField::Disc], true) ? self::numbered($value, $field) : self::data(self::TEXT, $value));
            }
        }
        if ($tags->cover !== null) {
            $items .= Boxes::box('covr', self::data($tags->cover->type === 'image/png' ? self::PNG : self::JPEG, $tags->cover->bytes));
        }
        $meta = $items === '' ? '' : Boxes::full('meta', 0, 0, Boxes::full('hdlr', 0, 0, "\0\0\0\0".'mdirappl'.str_repeat("\0", 9)).Boxes::box('ilst', $items));

        return $meta.$more === '' ? '' : Boxes::box('udta', $meta.$more);
    }

    /** `3` or `3/12`: number and how many there are, two bytes each among empty ones. */
    private static function numbered(string $value, TagField $field): string
    {
        $parts = array_map(intval(...), explode('/', $value.'/0'));

        return self::data(self::BYTES, pack('n3', 0, min(0xFFFF, max(0, $parts[0])), min(0xFFFF, max(0, $parts[1]))).($field === TagField::Track ? "\0\0" : ''));
    }

    private static function data(int $kind, string $bytes): string
    {
        return Boxes::box('data', pack('N2', $kind, 0).$bytes);
    }
}
