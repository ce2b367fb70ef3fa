<?php

declare(strict_types=1);

namespace Octavox\Core\Container\IsoMedia;

use Octavox\Core\Tag\Cover;
use Octavox\Core\Tag\TagField;
use Octavox\Core\Tag\Tags;

/** Reads tags: the item list of `moov/udta/meta/ilst`, and the text entries that QuickTime puts into `udta` itself. */
final class ItemListReader
{
    /** @see https://developer.apple.com/documentation/quicktime-file-format/well-known_types */
    private const NUMBERED_GENRE = 'gnre';

    public function __construct(private readonly BoxReader $boxes)
    {
    }

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
                        } else {
                            $tags = $this->item($tags, $item);
                        }
                    }
                }
            }
        }

        return new MovieTags($tags, $gapless);
    }

    private function item(Tags $tags, Box $item): Tags
    {
        foreach ($this->boxes->children($item) as $data) {
            if ($data->type !== 'data' || $data->bodyLength() < 8) {
                continue;
            }
            if ($item->type === 'covr') {
                return $data->bodyLength() > Cover::MOST_BYTES ? $tags : $tags->withCover(Cover::recognise(substr($this->boxes->contentBytes($data), 8)));
            }
            if ($data->bodyLength() > 65536) {
                return $tags;
            }
            $value = substr($this->boxes->contentBytes($data), 8);
            foreach (TagField::cases() as $field) {
                if ($field->item() === $item->type) {
                    return $tags->with($field, $field === TagField::Track || $field === TagField::Disc ? self::numbers($value) : $value);
                }
            }
            if ($item->type === self::NUMBERED_GENRE && strlen($value) === 2) {
                return $tags->with(TagField::Genre, '('.(ord($value[1]) - 1).')');
            }
        }

        return $tags;
    }

    /** Number and total in two bytes each after two unused ones. */
    private static function numbers(string $value): string
    {
        $numbers = array_values(unpack('n*', $value) ?: []);
        $number = $numbers[1] ?? 0;
        $total = $numbers[2] ?? 0;

        return $number === 0 ? '' : ($total === 0 ? (string) $number : $number.'/'.$total);
    }

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
