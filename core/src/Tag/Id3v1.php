<?php

declare(strict_types=1);

namespace Octavox\Core\Tag;

/** The 128 bytes at the end of old MP3 files: ID3v1.1 (id3.org). */
final class Id3v1
{
    public const BYTES = 128;

    public static function read(string $bytes): Tags
    {
        $tags = Tags::none();
        if (strlen($bytes) !== self::BYTES || ! str_starts_with($bytes, 'TAG')) {
            return $tags;
        }
        foreach ([[TagField::Title, 3, 30], [TagField::Artist, 33, 30], [TagField::Album, 63, 30], [TagField::Year, 93, 4],
            [TagField::Comment, 97, 28]] as [$field, $at, $length]) {
            $text = rtrim(explode("\0", substr($bytes, $at, $length))[0]);
            $tags = $tags->with($field, mb_check_encoding($text, 'UTF-8') ? $text
                : (string) mb_convert_encoding($text, 'UTF-8', 'ISO-8859-1'));
        }

        $tags = $tags->with(TagField::Genre, Genre::named(ord($bytes[127])));

        // An empty byte before the last of the comment makes that the number of the track.
        return $bytes[125] === "\0" && $bytes[126] !== "\0" ? $tags->with(TagField::Track, (string) ord($bytes[126])) : $tags;
    }
}
