<?php

declare(strict_types=1);

namespace Octavox\Core\Tag;

/**
 * The comments of Ogg and FLAC: Vorbis I specification, 5; names as its section 5.2.2 and common use have them.
 * A cover is METADATA_BLOCK_PICTURE: the picture block of FLAC (RFC 9639, 8.8) in base 64. Chapters are as the "Chapter Extension" of the
 * Xiph.Org wiki has them.
 */
final class VorbisComment
{
    private const MOST_COMMENTS = 10_000;

    private const MOST_CHAPTERS = 999;

    private const PICTURE = 'METADATA_BLOCK_PICTURE';

    /** Comments that say how many there are, the usual one first, by the field of the number. */
    private const TOTALS = ['track' => ['TRACKTOTAL', 'TOTALTRACKS'], 'disc' => ['DISCTOTAL', 'TOTALDISCS']];

    /** The number 3 of RFC 9639, table 13: front cover. */
    private const FRONT = 3;

    /** @param  string  $bytes from the length of the vendor's name on; what is damaged is left out */
    public static function read(string $bytes): Tags
    {
        $tags = Tags::none();
        $starts = $titles = $said = [];
        foreach (self::comments($bytes) as [$name, $value]) {
            if (preg_match('/^CHAPTER(\d{3})(NAME)?$/', $name, $match) === 1) {
                isset($match[2]) ? $titles[$match[1]] = $value : $starts[$match[1]] = self::seconds($value);

                continue;
            }
            if ($name === self::PICTURE) {
                $picture = base64_decode($value, true);
                $tags = $picture === false || $tags->cover !== null ? $tags : $tags->withCover(self::cover($picture));

                continue;
            }
            $field = TagField::ofComment($name);
            // Several comments of one name are several values; other names of the same field say it again.
            $said[$field->value ?? $name] ??= $name;
            if ($said[$field->value ?? $name] === $name) {
                $tags = $field === null ? $tags->addingFree($name, $value) : $tags->adding($field, $value);
            }
        }
        $starts = array_filter($starts, fn (?float $start): bool => $start !== null);

        $tags = self::withTotals($tags);

        return $tags->withChapters(array_map(fn (float $start, int|string $number): Chapter => new Chapter($start, $titles[$number] ?? ''),
            $starts, array_keys($starts)));
    }

    /** How many there are stands in comments of their own: as one of so many it belongs to the number. */
    private static function withTotals(Tags $tags): Tags
    {
        foreach (self::TOTALS as $field => $names) {
            $field = TagField::from($field);
            $number = $tags->get($field) ?? '';
            foreach ($names as $name) {
                $total = $tags->free()[$name][0] ?? '';
                if (preg_match('/^\d{1,5}$/', $number) === 1 && preg_match('/^\d{1,5}$/', $total) === 1) {
                    $tags = $tags->with($field, $number.'/'.$total);
                }
                $tags = str_contains($tags->get($field) ?? '', '/') ? $tags->withFree($name) : $tags;
            }
        }

        return $tags;
    }

    /** @return list<string> the number, and in a comment of its own how many there are */
    private static function numbered(TagField $field, string $value): array
    {
        $total = self::TOTALS[$field->value][0] ?? null;

        return $total !== null && preg_match('~^(\d{1,5})/(\d{1,5})$~', $value, $parts) === 1
            ? [$field->vorbis()[0].'='.$parts[1], $total.'='.$parts[2]] : [$field->vorbis()[0].'='.$value];
    }

    private static function seconds(string $time): ?float
    {
        return preg_match('/^(\d{1,3}):(\d{2}):(\d{2}(?:\.\d{1,9})?)$/', trim($time), $parts) === 1
            ? 3600 * (int) $parts[1] + 60 * (int) $parts[2] + (float) $parts[3] : null;
    }

    /** @return list<string> */
    private static function chapters(Tags $tags): array
    {
        $comments = [];
        foreach (array_slice($tags->chapters, 0, self::MOST_CHAPTERS) as $index => $chapter) {
            $milliseconds = (int) round(1000 * $chapter->starts);
            $comments[] = sprintf('CHAPTER%03d=%02d:%02d:%02d.%03d', $index + 1, intdiv($milliseconds, 3_600_000),
                intdiv($milliseconds, 60_000) % 60, intdiv($milliseconds, 1000) % 60, $milliseconds % 1000);
            $comments[] = sprintf('CHAPTER%03dNAME=%s', $index + 1, $chapter->title);
        }

        return $comments;
    }

    /** Value of one comment that is no tag, such as a channel mask; null where it is not there. */
    public static function value(string $bytes, string $wanted): ?string
    {
        foreach (self::comments($bytes) as [$name, $value]) {
            if ($name === $wanted) {
                return $value;
            }
        }

        return null;
    }

    /**
     * @param  array<string, string>  $more  comments that are no tags
     * @param  bool  $picture  whether the cover stands among the comments
     */
    public static function write(Tags $tags, string $vendor, array $more = [], bool $picture = true): string
    {
        $comments = [];
        foreach (TagField::cases() as $field) {
            foreach ($tags->all($field) as $value) {
                array_push($comments, ...self::numbered($field, $value));
            }
        }
        foreach ($tags->free() as $name => $values) {
            foreach ($values as $value) {
                $comments[] = $name.'='.$value;
            }
        }
        array_push($comments, ...self::chapters($tags));
        foreach ($more as $name => $value) {
            $comments[] = $name.'='.$value;
        }
        if ($picture && $tags->cover !== null) {
            $comments[] = self::PICTURE.'='.base64_encode(self::picture($tags->cover));
        }

        return pack('V', strlen($vendor)).$vendor.pack('V', count($comments)).implode('',
            array_map(fn (string $comment): string => pack('V', strlen($comment)).$comment, $comments));
    }

    /** The body of a picture block. */
    public static function picture(Cover $cover): string
    {
        return pack('N2', self::FRONT, strlen($cover->type)).$cover->type.pack('N', 0).pack('N4', 0, 0, 0, 0).pack('N',
            strlen($cover->bytes)).$cover->bytes;
    }

    /** @param  string  $block the body of a picture block */
    public static function cover(string $block): ?Cover
    {
        $type = self::number(substr($block, 4, 4), 'N');
        $description = self::number(substr($block, 8 + $type, 4), 'N');
        $at = 12 + $type + $description + 20;

        return strlen($block) > $at && strlen($block) <= Cover::MOST_BYTES ? Cover::recognise(substr($block, $at)) : null;
    }

    /** @return iterable<array{string, string}> name in capitals, and value */
    private static function comments(string $bytes): iterable
    {
        $at = 4 + self::number(substr($bytes, 0, 4), 'V');
        $count = min(self::MOST_COMMENTS, self::number(substr($bytes, $at, 4), 'V'));
        $at += 4;
        for ($index = 0; $index < $count; $index++) {
            $length = self::number(substr($bytes, $at, 4), 'V');
            if ($length > strlen($bytes) - $at - 4 || strlen($bytes) < $at + 4) {
                return;
            }
            $parts = explode('=', substr($bytes, $at + 4, $length), 2);
            if (count($parts) === 2) {
                yield [strtoupper($parts[0]), $parts[1]];
            }
            $at += 4 + $length;
        }
    }

    private static function number(string $bytes, string $format): int
    {
        $number = strlen($bytes) === 4 ? unpack($format, $bytes) : false;

        return is_array($number) && is_int($number[1]) ? $number[1] : 0;
    }
}
