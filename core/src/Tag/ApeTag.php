<?php

declare(strict_types=1);

namespace Octavox\Core\Tag;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileUnreadable;

/** APE tags at the end of WavPack, MP3 and other files: version 2.000, with text in UTF-8; version 1 is read too. */
final class ApeTag
{
    public const FOOTER = 32;

    private const MARK = 'APETAGEX';

    private const MOST_BYTES = 32 * 1024 * 1024;

    private const MOST_ITEMS = 1000;

    /** Flags: the tag has a header; this is it; an item's bytes are no text. */
    private const HAS_HEADER = 0x80000000;

    private const IS_HEADER = 0x20000000;

    private const BINARY = 2;

    private const COVER = 'Cover Art (Front)';

    /** Bytes of the whole tag whose last 32 bytes these are; 0 where there is none. */
    public static function length(string $footer): int
    {
        if (strlen($footer) !== self::FOOTER || ! str_starts_with($footer, self::MARK)) {
            return 0;
        }
        /** @var array{s: int, c: int, f: int} $numbers */
        $numbers = unpack('x12/Vs/Vc/Vf', $footer);

        return $numbers['s'] < self::FOOTER || $numbers['s'] > self::MOST_BYTES ? 0
            : $numbers['s'] + (($numbers['f'] & self::HAS_HEADER) !== 0 ? self::FOOTER : 0);
    }

    /**
     * Bytes of the tag that ends at $end; whether it has a header shows only where that would stand.
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public static function before(ByteSource $bytes, int $end, int $start = 0): int
    {
        $length = $end - $start < self::FOOTER ? 0 : self::length($bytes->read($end - self::FOOTER, self::FOOTER));
        if ($length > $end - $start) {
            return 0;
        }
        $isHeaded = $length > 0 && $bytes->read($end - $length, strlen(self::MARK)) === self::MARK;

        return $length === 0 || $isHeaded ? $length : max(self::FOOTER, $length - self::FOOTER);
    }

    /** @param  string  $tag  the whole tag; what is damaged in it is left out */
    public static function read(string $tag): Tags
    {
        $tags = Tags::none();
        $at = str_starts_with($tag, self::MARK) ? self::FOOTER : 0;
        $end = strlen($tag) - self::FOOTER;
        for ($seen = 0; $at + 9 < $end && $seen < self::MOST_ITEMS; $seen++) {
            /** @var array{s: int, f: int} $numbers */
            $numbers = unpack('Vs/Vf', substr($tag, $at, 8));
            $name = strpos($tag, "\0", $at + 8);
            if ($name === false || $name + 1 + $numbers['s'] > $end) {
                break;
            }
            $key = substr($tag, $at + 8, $name - $at - 8);
            $value = substr($tag, $name + 1, $numbers['s']);
            $at = $name + 1 + $numbers['s'];
            $tags = self::apply($tags, $key, $value, $numbers['f'] >> 1 & 3);
        }

        return $tags;
    }

    /** The whole tag; empty where there is nothing to say. */
    public static function write(Tags $tags): string
    {
        $items = [];
        foreach (TagField::cases() as $field) {
            $items = [...$items, ...self::item($field->ape(), $tags->all($field))];
        }
        foreach ($tags->free() as $name => $values) {
            $items = [...$items, ...self::item($name, $values)];
        }
        if ($tags->cover !== null) {
            $picture = 'cover'.($tags->cover->type === 'image/png' ? '.png' : '.jpg')."\0".$tags->cover->bytes;
            $items[] = pack('V2', strlen($picture), self::BINARY).self::COVER."\0".$picture;
        }
        if ($items === []) {
            return '';
        }
        $body = implode('', $items);
        $end = fn (int $flags): string => self::MARK.pack('V4', 2000, strlen($body) + self::FOOTER, count($items),
            $flags).str_repeat("\0", 8);

        return $end(self::HAS_HEADER | self::IS_HEADER).$body.$end(self::HAS_HEADER);
    }

    /**
     * @param  list<string>  $values
     * @return list<string> one item, none where there is no value
     */
    private static function item(string $name, array $values): array
    {
        $text = implode("\0", $values);

        return $values === [] ? [] : [pack('V2', strlen($text), 0).$name."\0".$text];
    }

    private static function apply(Tags $tags, string $key, string $value, int $kind): Tags
    {
        if (strcasecmp($key, self::COVER) === 0) {
            $data = strpos($value, "\0");

            return $data === false || strlen($value) > Cover::MOST_BYTES ? $tags
                : $tags->withCover(Cover::recognise(substr($value, $data + 1)));
        }
        foreach (TagField::cases() as $field) {
            if ($kind === 0 && strcasecmp($key, $field->ape()) === 0) {
                return $tags->with($field,
                    ...($field === TagField::Genre ? array_merge(...array_map(Genre::words(...), explode("\0", $value)))
                    : explode("\0", $value)));
            }
        }
        $field = $kind === 0 ? TagField::ofComment($key) : null;

        return match (true) {
            $kind !== 0 => $tags,
            $field !== null => $tags->with($field, ...explode("\0", $value)),
            default => $tags->addingFree($key, ...explode("\0", $value)),
        };
    }
}
