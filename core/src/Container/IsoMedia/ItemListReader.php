<?php

declare(strict_types=1);

namespace Octavox\Core\Container\IsoMedia;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Container\BrokenStructure;
use Octavox\Core\Tag\Cover;
use Octavox\Core\Tag\Genre;
use Octavox\Core\Tag\TagField;
use Octavox\Core\Tag\Tags;

/** Reads tags: the item list of `moov/udta/meta/ilst`, and the text entries that QuickTime puts into `udta` itself. */
final class ItemListReader
{
    /** @see https://developer.apple.com/documentation/quicktime-file-format/well-known_types */
    private const NUMBERED_GENRE = 'gnre';

    public function __construct(private readonly BoxReader $boxes) {}

    /**
     * @throws BytesMissing
     * @throws BrokenStructure
     * @throws FileUnreadable
     */
    public function read(Box $movie): MovieTags
    {
        $tags = Tags::none();
        $gapless = null;
        $user = $this->boxes->find($movie, 'udta');
        $lists = [];
        foreach (array_filter([$user, $movie]) as $holder) {
            foreach ($this->boxes->children($holder) as $child) {
                if ($child->type === 'meta') {
                    $lists[] = $child;
                } elseif ($holder === $user && str_starts_with($child->type, "\xA9")) {
                    $tags = $this->userText($tags, $child);
                }
            }
        }
        foreach ($lists as $meta) {
            // A full box in MP4, a plain one in QuickTime: the first child's name tells which.
            $plain = $meta->bodyLength() >= 8 && $this->boxes->head($meta, 8)->skip(4)->take(4) === 'hdlr';
            foreach ($this->boxes->children($meta, $plain ? 0 : 4) as $child) {
                if ($child->type === 'ilst') {
                    foreach ($this->boxes->children($child) as $item) {
                        if ($item->type === '----') {
                            $gapless ??= $this->gapless($item);
                            $tags = $this->free($tags, $item);
                        } else {
                            $tags = $this->item($tags, $item);
                        }
                    }
                }
            }
        }

        return new MovieTags($tags, $gapless);
    }

    /**
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function item(Tags $tags, Box $item): Tags
    {
        foreach ($this->boxes->children($item) as $data) {
            if ($data->type !== 'data' || $data->bodyLength() < 8) {
                continue;
            }
            if ($item->type === 'covr') {
                return $data->bodyLength() > Cover::MOST_BYTES ? $tags
                    : $tags->withCover(Cover::recognise(substr($this->boxes->contentBytes($data), 8)));
            }
            if ($data->bodyLength() > 65536) {
                return $tags;
            }
            $value = substr($this->boxes->contentBytes($data), 8);
            foreach (TagField::cases() as $field) {
                if ($field->item() === $item->type) {
                    $tags = $tags->adding($field, match ($field) {
                        TagField::Track, TagField::Disc => self::numbers($value),
                        TagField::Tempo, TagField::Compilation => self::number($value),
                        default => $value,
                    });
                }
            }
            if ($item->type === self::NUMBERED_GENRE && strlen($value) === 2) {
                return $tags->adding(TagField::Genre, Genre::named(ord($value[1]) - 1));
            }
        }

        return $tags;
    }

    /** A whole number of one to four bytes; nothing where it is none. */
    private static function number(string $value): string
    {
        $number = 0;
        foreach (str_split(substr($value, 0, 4)) as $byte) {
            $number = $number << 8 | ord($byte);
        }

        return $value === '' || $number === 0 ? '' : (string) $number;
    }

    /**
     * Free-form items: a name, and one or more values.
     *
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function free(Tags $tags, Box $item): Tags
    {
        $name = '';
        $values = [];
        foreach ($this->boxes->children($item) as $part) {
            if ($part->bodyLength() > 65_536 + 8) {
                return $tags;
            }
            if ($part->type === 'name') {
                $name = substr($this->boxes->contentBytes($part), 4);
            } elseif ($part->type === 'data' && $part->bodyLength() >= 8) {
                $values[] = substr($this->boxes->contentBytes($part), 8);
            }
        }
        $field = TagField::ofComment($name);

        return $field === null ? $tags->addingFree($name, ...$values) : $tags->with($field, ...$values);
    }

    /** Number and total in two bytes each after two unused ones. */
    private static function numbers(string $value): string
    {
        $numbers = array_values(unpack('n*', $value) ?: []);
        $number = $numbers[1] ?? 0;
        $total = $numbers[2] ?? 0;

        return $number === 0 ? '' : ($total === 0 ? (string) $number : $number.'/'.$total);
    }

    /**
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function userText(Tags $tags, Box $entry): Tags
    {
        if ($entry->bodyLength() < 4 || $entry->bodyLength() > 65536) {
            return $tags;
        }
        $cursor = $this->boxes->content($entry);
        $length = min($cursor->u16be(), $cursor->skip(2)->remaining());
        foreach (TagField::cases() as $field) {
            if ($field->item() === $entry->type) {
                return $tags->with($field, $cursor->take($length));
            }
        }

        return $tags;
    }

    /**
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function gapless(Box $item): ?GaplessComment
    {
        $name = '';
        foreach ($this->boxes->children($item) as $part) {
            if ($part->bodyLength() > 4096) {
                return null;
            }
            if ($part->type === 'name') {
                $name = substr($this->boxes->contentBytes($part), 4);
            } elseif ($part->type === 'data' && $name === 'iTunSMPB') {
                return GaplessComment::parse(substr($this->boxes->contentBytes($part), 8));
            }
        }

        return null;
    }
}
