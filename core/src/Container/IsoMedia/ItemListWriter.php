<?php

declare(strict_types=1);

namespace Octavox\Core\Container\IsoMedia;

use Octavox\Core\Tag\FreeName;
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

    private const NUMBER = 21;

    /** The space of names in which players look for free-form items. */
    private const FREE = 'com.apple.iTunes';

    /** @param  string  $more  boxes that stand beside the list, such as chapters */
    public static function box(Tags $tags, string $more = ''): string
    {
        $items = '';
        foreach (TagField::cases() as $field) {
            $values = $tags->all($field);
            $item = $field->item();
            if ($values === []) {
                continue;
            }
            $items .= match (true) {
                $item === null => self::free($field->vorbis()[0], $values),
                in_array($field, [TagField::Track, TagField::Disc], true) => Boxes::box($item, self::numbered($values[0], $field)),
                $field === TagField::Tempo => Boxes::box($item,
                    self::data(self::NUMBER, pack('n', min(0xFFFF, (int) round((float) $values[0]))))),
                $field === TagField::Compilation => Boxes::box($item, self::data(self::NUMBER, chr((int) $values[0] > 0 ? 1 : 0))),
                default => Boxes::box($item, implode('', array_map(fn (string $value): string => self::data(self::TEXT, $value), $values))),
            };
        }
        foreach ($tags->free() as $name => $values) {
            $items .= self::free(FreeName::inWords($name), $values);
        }
        if ($tags->cover !== null) {
            $items .= Boxes::box('covr', self::data($tags->cover->type === 'image/png' ? self::PNG : self::JPEG, $tags->cover->bytes));
        }
        $meta = $items === '' ? ''
            : Boxes::full('meta', 0, 0, Boxes::full('hdlr', 0, 0, "\0\0\0\0".'mdirappl'.str_repeat("\0", 9)).Boxes::box('ilst', $items));

        return $meta.$more === '' ? '' : Boxes::box('udta', $meta.$more);
    }

    /** `3` or `3/12`: number and how many there are, two bytes each among empty ones. */
    private static function numbered(string $value, TagField $field): string
    {
        $parts = array_map(intval(...), explode('/', $value.'/0'));

        return self::data(self::BYTES,
            pack('n3', 0, min(0xFFFF, max(0, $parts[0])), min(0xFFFF, max(0, $parts[1]))).($field === TagField::Track ? "\0\0" : ''));
    }

    /** @param  list<string>  $values */
    private static function free(string $name, array $values): string
    {
        return Boxes::box('----', Boxes::full('mean', 0, 0, self::FREE).Boxes::full('name', 0, 0, $name).implode('',
            array_map(fn (string $value): string => self::data(self::TEXT, $value), $values)));
    }

    private static function data(int $kind, string $bytes): string
    {
        return Boxes::box('data', pack('N2', $kind, 0).$bytes);
    }
}
