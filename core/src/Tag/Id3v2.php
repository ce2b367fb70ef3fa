<?php

declare(strict_types=1);

namespace Octavox\Core\Tag;

use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\Cursor;

/** Reads ID3v2.2 to 2.4 and writes ID3v2.4 with UTF-8 text (id3.org, structure and native frames documents, and the addendum "Chapter Frames" 1.0). */
final class Id3v2
{
    /** Tags that follow each other at the begin of a file. */
    private const MOST_TAGS = 8;

    /** More is damage. */
    private const MOST_BYTES = 32 * 1024 * 1024;

    /** A table of contents counts its entries in one byte. */
    private const MOST_CHAPTERS = 255;

    /** Chapter frame: places in the file that are not stated. */
    private const NOWHERE = 0xFFFFFFFF;

    private const OLD_NAMES = ['TT2' => 'TIT2', 'TP1' => 'TPE1', 'TAL' => 'TALB', 'TP2' => 'TPE2', 'TRK' => 'TRCK', 'TPA' => 'TPOS', 'TYE' => 'TDRC', 'TCO' => 'TCON', 'COM' => 'COMM', 'TCR' => 'TCOP', 'PIC' => 'APIC'];

    /** Bytes that the tag at the begin of $head takes, header included; 0 where there is none. */
    public static function length(string $head): int
    {
        if (strlen($head) < 10 || ! str_starts_with($head, 'ID3')) {
            return 0;
        }

        return 10 + self::syncSafe(substr($head, 6, 4)) + ((ord($head[5]) & 0x10) !== 0 ? 10 : 0);
    }

    /** Where the sound begins behind all tags at the begin of a file: some programs put a second one before the first. */
    public static function end(ByteSource $bytes): int
    {
        $at = 0;
        for ($tags = 0; $tags < self::MOST_TAGS && $at + 10 <= $bytes->size(); $tags++) {
            $length = self::length($bytes->read($at, 10));
            if ($length === 0) {
                break;
            }
            $at += $length;
        }

        return min($at, $bytes->size());
    }

    /** What all tags at the begin of a file say; where several say something, the first. */
    public static function ofFile(ByteSource $bytes): Tags
    {
        $tags = Tags::none();
        $at = 0;
        for ($count = 0; $count < self::MOST_TAGS && $at + 10 <= $bytes->size(); $count++) {
            $length = self::length($bytes->read($at, 10));
            if (! self::isReadable($length) || $at + $length > $bytes->size()) {
                break;
            }
            $tags = $tags->over(self::read($bytes->read($at, $length)));
            $at += $length;
        }

        return $tags;
    }

    public static function isReadable(int $length): bool
    {
        return $length > 0 && $length <= self::MOST_BYTES;
    }

    /** @param  string  $bytes the whole tag; what is damaged in it is left out */
    public static function read(string $bytes): Tags
    {
        $tags = Tags::none();
        $version = ord($bytes[3] ?? "\0");
        $body = substr($bytes, 10);
        if ($version < 4 && (ord($bytes[5] ?? "\0") & 0x80) !== 0) {
            $body = str_replace("\xFF\x00", "\xFF", $body);
        }
        $chapters = [];
        foreach (self::frames($body, $version) as [$name, $data]) {
            $chapter = $name === 'CHAP' ? self::chapter($data, $version) : null;
            if ($chapter !== null) {
                $chapters[] = $chapter;
            } else {
                $tags = self::apply($tags, $name, $data, $version);
            }
        }

        return $tags->withChapters($chapters);
    }

    /** @return iterable<array{string, string}> names, those of version 2.4, and contents, up to where they are damaged */
    private static function frames(string $body, int $version): iterable
    {
        $cursor = new Cursor($body);
        try {
            while ($cursor->remaining() > 10) {
                $name = $cursor->take($version === 2 ? 3 : 4);
                if (preg_match('/^[A-Z0-9]+$/', $name) !== 1) {
                    break;
                }
                $size = match ($version) {
                    2 => $cursor->u24be(),
                    3 => $cursor->u32be(),
                    default => self::syncSafe($cursor->take(4)),
                };
                $flags = $version === 2 ? 0 : $cursor->u16be();
                $data = $cursor->take($size);
                if ($version === 4 && ($flags & 1) !== 0) {
                    $data = substr($data, 4);
                }
                yield [self::OLD_NAMES[$name] ?? $name, $data];
            }
        } catch (BytesMissing) {
            return;
        }
    }

    private static function chapter(string $data, int $version): ?Chapter
    {
        $at = strpos($data, "\0");
        $starts = $at === false || strlen($data) < $at + 17 ? false : unpack('N', $data, $at + 1);
        if ($starts === false || ! is_int($starts[1])) {
            return null;
        }
        foreach (self::frames(substr($data, $at + 17), $version) as [$name, $text]) {
            if ($name === 'TIT2' && $text !== '') {
                return new Chapter($starts[1] / 1000, self::text($text, false));
            }
        }

        return new Chapter($starts[1] / 1000, '');
    }

    private static function chapters(Tags $tags): string
    {
        $chapters = array_slice($tags->chapters, 0, self::MOST_CHAPTERS);
        $frames = $names = '';
        foreach ($chapters as $index => $chapter) {
            $name = sprintf("chapter%03d\0", $index + 1);
            $names .= $name;
            $frames .= self::frame('CHAP', $name.pack('N4', (int) round(1000 * $chapter->starts), (int) round(1000 * $tags->chapterEnds($index)), self::NOWHERE, self::NOWHERE).($chapter->title === '' ? '' : self::frame('TIT2', "\x03".$chapter->title)));
        }

        // 3: at the top, and in order
        return $frames === '' ? '' : self::frame('CTOC', "contents\0\x03".chr(count($chapters)).$names).$frames;
    }

    /** The whole tag; empty where there is nothing to say. */
    public static function write(Tags $tags): string
    {
        $frames = '';
        foreach (TagField::cases() as $field) {
            $value = $tags->get($field);
            if ($value !== null) {
                $frames .= self::frame($field->id3(), $field === TagField::Comment ? "\x03und\x00".$value : "\x03".$value);
            }
        }
        $frames .= self::chapters($tags);
        if ($tags->cover !== null) {
            // 3: front cover
            $frames .= self::frame('APIC', "\x03".$tags->cover->type."\x00\x03\x00".$tags->cover->bytes);
        }

        return $frames === '' ? '' : "ID3\x04\x00\x00".self::toSyncSafe(strlen($frames)).$frames;
    }

    private static function apply(Tags $tags, string $name, string $data, int $version): Tags
    {
        if ($name === 'APIC') {
            $start = strpos($data, "\xFF\xD8\xFF");
            $start = $start === false ? strpos($data, "\x89PNG") : $start;

            return $start === false || $start > 512 ? $tags : $tags->withCover(Cover::recognise(substr($data, $start)));
        }
        if ($name === 'TYER' && $version === 3) {
            $name = 'TDRC';
        }
        foreach (TagField::cases() as $field) {
            if ($field->id3() === $name && $data !== '') {
                return $tags->with($field, self::text($data, $field === TagField::Comment));
            }
        }

        return $tags;
    }

    private static function text(string $data, bool $described): string
    {
        $encoding = ord($data[0]);
        $text = substr($data, $described ? 4 : 1);
        $wide = $encoding === 1 || $encoding === 2;
        if ($wide) {
            $text = (string) mb_convert_encoding($text, 'UTF-8', $encoding === 2 ? 'UTF-16BE' : (str_starts_with($text, "\xFE\xFF") ? 'UTF-16BE' : 'UTF-16LE'));
            $text = str_replace("\u{FEFF}", '', $text);
        } elseif ($encoding === 0) {
            $text = (string) mb_convert_encoding($text, 'UTF-8', 'ISO-8859-1');
        }
        $parts = explode("\0", rtrim($text, "\0"));

        return $described ? ($parts[1] ?? $parts[0]) : implode('; ', array_filter($parts, fn (string $part): bool => $part !== ''));
    }

    private static function frame(string $name, string $data): string
    {
        return $name.self::toSyncSafe(strlen($data))."\0\0".$data;
    }

    private static function syncSafe(string $bytes): int
    {
        return (ord($bytes[0]) & 0x7F) << 21 | (ord($bytes[1]) & 0x7F) << 14 | (ord($bytes[2]) & 0x7F) << 7 | (ord($bytes[3]) & 0x7F);
    }

    private static function toSyncSafe(int $value): string
    {
        return chr($value >> 21 & 0x7F).chr($value >> 14 & 0x7F).chr($value >> 7 & 0x7F).chr($value & 0x7F);
    }
}
