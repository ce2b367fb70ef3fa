<?php

declare(strict_types=1);

namespace Octavox\Core\Tag;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\Cursor;
use Octavox\Core\Bytes\FileUnreadable;

/**
 * Reads ID3v2.2 to 2.4 and writes ID3v2.4 with UTF-8 text (id3.org, structure and native frames documents, and the addendum "Chapter
 * Frames" 1.0).
 */
final class Id3v2
{
    /** Tags that follow each other at the start of a file. */
    private const MOST_TAGS = 8;

    /** More is damage. */
    private const MOST_BYTES = 32 * 1024 * 1024;

    /** A table of contents counts its entries in one byte. */
    private const MOST_CHAPTERS = 255;

    /** Bytes of encoding, type, kind and description before a picture; some programs write them otherwise than they say. */
    private const MOST_BEFORE_PICTURE = 512;

    /** Chapter frame: places in the file that are not stated. */
    private const NOWHERE = 0xFFFFFFFF;

    private const OLD_NAMES = ['TT2' => 'TIT2', 'TP1' => 'TPE1', 'TAL' => 'TALB', 'TP2' => 'TPE2', 'TRK' => 'TRCK', 'TPA' => 'TPOS',
        'TYE' => 'TYER', 'TDA' => 'TDAT', 'TCO' => 'TCON', 'COM' => 'COMM', 'TCR' => 'TCOP', 'PIC' => 'APIC',
        'TCM' => 'TCOM', 'TXT' => 'TEXT', 'TP3' => 'TPE3', 'TP4' => 'TPE4', 'TPB' => 'TPUB', 'TRC' => 'TSRC', 'ULT' => 'USLT',
        'TLA' => 'TLAN', 'TT1' => 'TIT1', 'TT3' => 'TIT3',
        'TBP' => 'TBPM', 'TKE' => 'TKEY', 'TOR' => 'TDOR', 'TORY' => 'TDOR', 'TCP' => 'TCMP', 'TEN' => 'TENC',
        'TXX' => 'TXXX', 'UFI' => 'UFID',
        'TST' => 'TSOT', 'TSP' => 'TSOP', 'TSA' => 'TSOA', 'TS2' => 'TSO2', 'TSC' => 'TSOC', 'XSOP' => 'TSOP'];

    /** Flags of the tag. */
    private const UNSYNCHRONISED = 0x80;

    private const EXTENDED = 0x40;

    /** Whose identifier a recording has, and the name of that among comments. */
    private const CATALOGUE = 'http://musicbrainz.org';

    private const RECORDING = 'MUSICBRAINZ_TRACKID';

    /** Bytes that the tag at the start of $head takes, header included; 0 where there is none. */
    public static function length(string $head): int
    {
        if (strlen($head) < 10 || ! str_starts_with($head, 'ID3')) {
            return 0;
        }

        return 10 + self::syncSafe(substr($head, 6, 4)) + ((ord($head[5]) & 0x10) !== 0 ? 10 : 0);
    }

    /**
     * Where the sound begins behind all tags at the start of a file: some programs put a second one before the first.
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
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

    /**
     * What all tags at the start of a file say; where several say something, the first.
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
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
        $flags = ord($bytes[5] ?? "\0");
        $body = substr($bytes, 10);
        // Of version 2.4 each frame is unsynchronised by itself: ID3v2.4 structure, 6.1 and 4.1.2; before, all of the tag: ID3v2.3, 5.
        if ($version < 4 && ($flags & self::UNSYNCHRONISED) !== 0) {
            $body = self::synchronised($body);
        }
        if ($version > 2 && ($flags & self::EXTENDED) !== 0) {
            $body = substr($body, self::extendedBytes($body, $version));
        }
        $chapters = $dates = [];
        foreach (self::frames($body, $version, $version === 4 && ($flags & self::UNSYNCHRONISED) !== 0) as [$name, $data]) {
            $chapter = $name === 'CHAP' ? self::chapter($data, $version) : null;
            if ($chapter !== null) {
                $chapters[] = $chapter;
            } elseif ($version < 4 && in_array($name, ['TYER', 'TDAT'], true) && $data !== '') {
                $dates[$name] = self::texts($data)[0] ?? '';
            } else {
                $tags = self::apply($tags, $name, $data);
            }
        }
        $year = $dates['TYER'] ?? '';
        if ($year !== '') {
            // ID3v2.3, 4.2.1: day and month in two digits each
            $tags = $tags->with(TagField::Year, preg_match('/^(\d{2})(\d{2})$/', $dates['TDAT'] ?? '', $day) === 1 && strlen($year) === 4
                ? "$year-$day[2]-$day[1]" : $year);
        }

        return $tags->withChapters($chapters);
    }

    private static function synchronised(string $bytes): string
    {
        return str_replace("\xFF\x00", "\xFF", $bytes);
    }

    /** Bytes of the extended header: ID3v2.3, 3.2 (its size does not count itself), ID3v2.4 structure, 3.2. */
    private static function extendedBytes(string $body, int $version): int
    {
        if (strlen($body) < 4) {
            return 0;
        }
        /** @var array{1: int} $size */
        $size = unpack('N', $body);
        $length = $version === 3 ? 4 + $size[1] : self::syncSafe($body);

        return $length <= strlen($body) ? $length : 0;
    }

    /** @return iterable<array{string, string}> names, those of version 2.4, and contents, up to where they are damaged */
    private static function frames(string $body, int $version, bool $unsynchronised = false): iterable
    {
        $cursor = new Cursor($body);
        try {
            while ($cursor->remaining() > 10) {
                $name = $cursor->take($version === 2 ? 3 : 4);
                // Some programs left names of three letters where four belong.
                if (preg_match('/^[A-Z0-9]{3}[A-Z0-9 \0]?$/', $name) !== 1) {
                    break;
                }
                $size = match ($version) {
                    2 => $cursor->u24be(),
                    3 => $cursor->u32be(),
                    default => self::frameSize($cursor->take(4), $cursor),
                };
                $flags = $version === 2 ? 0 : $cursor->u16be();
                $data = self::content($cursor->take($size), $flags, $version, $unsynchronised);
                $name = rtrim($name, " \0");
                if ($data !== null) {
                    yield [self::OLD_NAMES[$name] ?? $name, $data];
                }
            }
        } catch (BytesMissing) {
            return;
        }
    }

    /** Some programs wrote the sizes of version 2.4 as those of 2.3: the one behind which a frame or nothing stands is meant. */
    private static function frameSize(string $bytes, Cursor $cursor): int
    {
        $size = self::syncSafe($bytes);
        /** @var array{1: int} $plain */
        $plain = unpack('N', $bytes);
        if ($plain[1] < 128 || $plain[1] === $size) {
            return $size;
        }
        $fits = fn (int $length): bool => $length + 2 === $cursor->remaining()
            || preg_match('/^([A-Z0-9]{4}|\0{4})/', $cursor->ahead($length + 2, 4)) === 1;

        return ! $fits($size) && $fits($plain[1]) ? $plain[1] : $size;
    }

    /**
     * What a frame holds, once it is neither compressed nor unsynchronised: ID3v2.3, 3.3.1; ID3v2.4 structure, 4.1.2. Null where it is
     * encrypted.
     */
    private static function content(string $data, int $flags, int $version, bool $unsynchronised): ?string
    {
        if ($version === 3) {
            $compressed = ($flags & 0x80) !== 0;
            if (($flags & 0x40) !== 0) {
                return null;
            }
            $data = substr($data, ($compressed ? 4 : 0) + (($flags & 0x20) !== 0 ? 1 : 0));
        } else {
            $compressed = ($flags & 0x08) !== 0;
            if (($flags & 0x04) !== 0) {
                return null;
            }
            $data = substr($data, (($flags & 0x40) !== 0 ? 1 : 0) + (($flags & 0x01) !== 0 ? 4 : 0));
            $data = $unsynchronised || ($flags & 0x02) !== 0 ? self::synchronised($data) : $data;
        }
        if (! $compressed) {
            return $data;
        }
        $inflated = @zlib_decode($data, Cover::MOST_BYTES);

        return $inflated === false ? null : $inflated;
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
                return new Chapter($starts[1] / 1000, self::texts($text)[0] ?? '');
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
            $frames .= self::frame('CHAP',
                $name.pack('N4', (int) round(1000 * $chapter->starts), (int) round(1000 * $tags->chapterEnds($index)), self::NOWHERE,
                    self::NOWHERE).($chapter->title === '' ? '' : self::frame('TIT2', "\x03".$chapter->title)));
        }

        // 3: at the top, and in order
        return $frames === '' ? '' : self::frame('CTOC', "contents\0\x03".chr(count($chapters)).$names).$frames;
    }

    /** The whole tag; empty where there is nothing to say. */
    public static function write(Tags $tags): string
    {
        $frames = '';
        foreach (TagField::cases() as $field) {
            $values = $tags->all($field);
            if ($values !== []) {
                $text = implode("\0", $values);
                $frames .= match ($field) {
                    TagField::Comment, TagField::Lyrics => self::frame($field->id3(), "\x03und\x00".implode("\n", $values)),
                    default => self::frame($field->id3(), "\x03".$text),
                };
            }
        }
        foreach ($tags->free() as $name => $values) {
            $frames .= $name === self::RECORDING
                ? self::frame('UFID', self::CATALOGUE."\0".$values[0])
                : self::frame('TXXX', "\x03".FreeName::inWords($name)."\0".implode("\0", $values));
        }
        $frames .= self::chapters($tags);
        if ($tags->cover !== null) {
            // 3: front cover
            $frames .= self::frame('APIC', "\x03".$tags->cover->type."\x00\x03\x00".$tags->cover->bytes);
        }

        return $frames === '' ? '' : "ID3\x04\x00\x00".self::toSyncSafe(strlen($frames)).$frames;
    }

    private static function apply(Tags $tags, string $name, string $data): Tags
    {
        if ($name === 'APIC') {
            return $tags->cover === null ? $tags->withCover(Cover::within($data, self::MOST_BEFORE_PICTURE)) : $tags;
        }
        if ($data === '') {
            return $tags;
        }
        if ($name === 'UFID') {
            return str_starts_with($data, self::CATALOGUE."\0")
                ? $tags->addingFree(self::RECORDING, substr($data, strlen(self::CATALOGUE) + 1)) : $tags;
        }
        if ($name === 'TXXX') {
            $texts = self::texts($data, false);
            $described = (string) array_shift($texts);
            $field = TagField::ofComment($described);

            return $field !== null && $tags->all($field) === [] ? $tags->with($field, ...$texts) : $tags->addingFree($described, ...$texts);
        }
        if ($name === 'COMM' || $name === 'USLT') {
            return self::described($tags, $name === 'COMM' ? TagField::Comment : TagField::Lyrics, $data);
        }
        foreach (TagField::cases() as $field) {
            if ($field->id3() === $name) {
                $texts = self::texts($data);

                return $tags->adding($field,
                    ...($field === TagField::Genre ? array_merge(...array_map(Genre::words(...), $texts)) : $texts));
            }
        }

        return $tags;
    }

    /**
     * Comments and lyrics: three letters of language and a description stand before. Comments that programs leave for themselves are not
     * for people.
     */
    private static function described(Tags $tags, TagField $field, string $data): Tags
    {
        $texts = self::texts($data[0].substr($data, 4), false);
        $description = count($texts) > 1 ? (string) array_shift($texts) : '';
        if (FreeName::clean($description) === null && $description !== '') {
            return $tags;
        }

        return $tags->adding($field, implode("\n", array_filter($texts, fn (string $text): bool => $text !== '')));
    }

    /**
     * The texts of a frame, in UTF-8: ID3v2.4 structure, 4; several are separated by a zero.
     *
     * @return list<string>
     */
    private static function texts(string $data, bool $filled = true): array
    {
        $encoding = ord($data[0]);
        $text = substr($data, 1);
        if ($encoding === 1 || $encoding === 2) {
            // Every text can have a mark of its own.
            $parts = array_map(fn (string $part): string => self::wide($part, $encoding === 2), self::wideParts($text));
        } else {
            $text = $encoding === 0 ? (string) mb_convert_encoding($text, 'UTF-8', 'ISO-8859-1') : $text;
            $parts = explode("\0", rtrim($text, "\0"));
        }

        return $filled ? array_values(array_filter($parts, fn (string $part): bool => $part !== '')) : $parts;
    }

    /** @return list<string> */
    private static function wideParts(string $text): array
    {
        $parts = [''];
        foreach (str_split($text, 2) as $unit) {
            if ($unit === "\0\0") {
                $parts[] = '';
            } elseif (strlen($unit) === 2) {
                $parts[count($parts) - 1] .= $unit;
            }
        }
        while (count($parts) > 1 && $parts[count($parts) - 1] === '') {
            array_pop($parts);
        }

        return $parts;
    }

    private static function wide(string $text, bool $bigEndian): string
    {
        $order = $bigEndian || str_starts_with($text, "\xFE\xFF") ? 'UTF-16BE' : 'UTF-16LE';

        return str_replace("\u{FEFF}", '', (string) mb_convert_encoding($text, 'UTF-8', $order));
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
