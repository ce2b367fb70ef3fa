<?php

declare(strict_types=1);

namespace Octavox\Core\Disc;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\JoinedBytes;
use Octavox\Core\Bytes\Stretch;

/** The file system of video discs: UDF 1.02, which is ECMA-167, on one partition. */
final class Udf implements DiscFiles
{
    private const SECTOR = 2048;

    /** ECMA-167, 3/8.4.2.1: where everything begins. */
    private const ANCHOR = 256;

    /** Tags: 3/7.2.1 and 4/7.2.1. */
    private const POINTER = 2;

    private const PARTITION = 5;

    private const VOLUME = 6;

    private const END = 8;

    private const SET = 256;

    private const NAME = 257;

    private const ENTRY = 261;

    private const EXTENDED = 266;

    private const MOST_DESCRIPTORS = 64;

    private const MOST_EXTENTS = 4096;

    private const MOST_DIRECTORY = 1 << 20;

    private string $label = '';

    /** @var array<string, int> block of the file's entry, by its name in capitals */
    private array $files = [];

    private int $partition = 0;

    private function __construct(private readonly ByteSource $image) {}

    /**
     * Null where the bytes are no such image.
     *
     * @throws FileUnreadable
     * @throws BytesMissing
     */
    public static function open(ByteSource $image): ?self
    {
        $anchor = self::tagged($image, self::ANCHOR, self::POINTER);
        if ($anchor === null) {
            return null;
        }
        $udf = new self($image);
        $set = null;
        // 3/10.2.2: length and place of the sequence of descriptors
        [$length, $first] = [self::number($anchor, 16), self::number($anchor, 20)];
        for ($index = 0; $index < min(intdiv($length, self::SECTOR), self::MOST_DESCRIPTORS); $index++) {
            $descriptor = self::sector($image, $first + $index);
            $tag = self::tag($descriptor);
            if ($tag === self::PARTITION) {
                // 3/10.5.9: where the partition begins
                $udf->partition = self::number($descriptor, 188);
            } elseif ($tag === self::VOLUME) {
                // 3/10.6.4 and, by 4/3.1, where the set of files is described
                $udf->label = self::name(substr($descriptor, 84, 128));
                $set = self::number($descriptor, 252);
            } elseif ($tag === self::END || $tag === null) {
                break;
            }
        }
        $description = $set === null ? null : self::tagged($image, $udf->partition + $set, self::SET);
        // 4/14.1.15: the entry of the root directory
        $root = $description === null ? [] : $udf->directory(self::number($description, 404));
        $udf->files = isset($root['VIDEO_TS']) ? $udf->directory($root['VIDEO_TS']) : [];

        return $udf;
    }

    public function label(): string
    {
        return $this->label;
    }

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function file(string $name): ?ByteSource
    {
        return isset($this->files[$name]) ? $this->bytes($this->files[$name]) : null;
    }

    /**
     * @return array<string, int> 4/14.4: blocks of entries by name
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function directory(int $block): array
    {
        $source = $this->bytes($block);
        $bytes = $source === null ? '' : $source->read(0, min($source->size(), self::MOST_DIRECTORY));
        $found = [];
        for ($at = 0, $end = strlen($bytes); $at + 38 <= $end && self::tag(substr($bytes, $at, 16)) === self::NAME;) {
            $flags = ord($bytes[$at + 18]);
            $name = self::coded(substr($bytes, $at + 38 + self::half($bytes, $at + 36), ord($bytes[$at + 19])));
            // 4/14.4.3: what was taken away, and the way up, are none of its files.
            if (($flags & 0x0C) === 0 && $name !== '') {
                $found[strtoupper($name)] = self::number($bytes, $at + 24);
            }
            $at += (38 + self::half($bytes, $at + 36) + ord($bytes[$at + 19]) + 3) & ~3;
        }

        return $found;
    }

    /**
     * What an entry describes: 4/14.9 and 4/14.17. Null where it is none.
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function bytes(int $block): ?JoinedBytes
    {
        $entry = self::sector($this->image, $this->partition + $block);
        $tag = self::tag($entry);
        if ($tag !== self::ENTRY && $tag !== self::EXTENDED) {
            return null;
        }
        $head = $tag === self::ENTRY ? 176 : 216;
        $size = (int) (unpack('P', $entry, 56)[1] ?? 0);
        $from = $head + self::number($entry, $head - 8);
        $until = min(self::SECTOR, $from + self::number($entry, $head - 4));
        $kind = ord($entry[34]) & 7;
        if ($kind === 3) {
            // 4/14.6.8: the bytes stand in the entry itself.
            $at = min(($this->partition + $block) * self::SECTOR + $from, $this->image->size());

            return new JoinedBytes($this->image->name(), [Stretch::in($this->image, $at, max(0, min($size, $until - $from,
                $this->image->size() - $at)))]);
        }
        // 4/14.14.1 and 4/14.14.2: short and long descriptors of extents
        $each = $kind === 1 ? 16 : 8;
        $stretches = [];
        for ($at = $from, $left = $size; $at + $each <= $until && $left > 0 && count($stretches) < self::MOST_EXTENTS; $at += $each) {
            $length = min($left, self::number($entry, $at) & 0x3FFFFFFF);
            $place = min(($this->partition + self::number($entry, $at + 4)) * self::SECTOR, $this->image->size());
            if ($length === 0) {
                break;
            }
            $stretches[] = Stretch::in($this->image, $place, min($length, $this->image->size() - $place));
            $left -= $length;
        }

        return new JoinedBytes($this->image->name(), $stretches);
    }

    /**
     * A descriptor where its tag is the one that is asked for.
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private static function tagged(ByteSource $image, int $sector, int $tag): ?string
    {
        $bytes = self::sector($image, $sector);

        return self::tag($bytes) === $tag ? $bytes : null;
    }

    /** 3/7.2: the identifier, where the sum over the tag is right. */
    private static function tag(string $bytes): ?int
    {
        if (strlen($bytes) < 16) {
            return null;
        }
        $sum = 0;
        for ($index = 0; $index < 16; $index++) {
            $sum += $index === 4 ? 0 : ord($bytes[$index]);
        }

        return ($sum & 0xFF) === ord($bytes[4]) ? self::half($bytes, 0) : null;
    }

    /**
     * Zeros where the image has no such sector.
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private static function sector(ByteSource $image, int $number): string
    {
        return $number < 0 || ($number + 1) * self::SECTOR > $image->size() ? str_repeat("\0", self::SECTOR)
            : $image->read($number * self::SECTOR, self::SECTOR);
    }

    private static function number(string $bytes, int $at): int
    {
        return strlen($bytes) < $at + 4 ? 0 : (int) (unpack('V', $bytes, $at)[1] ?? 0);
    }

    private static function half(string $bytes, int $at): int
    {
        return strlen($bytes) < $at + 2 ? 0 : (int) (unpack('v', $bytes, $at)[1] ?? 0);
    }

    /** 1/7.2.12: its last byte says how long it is. */
    private static function name(string $field): string
    {
        return self::coded(substr($field, 0, ord(substr($field, -1))));
    }

    /** UDF 1.02, 2.1.1: the first byte says of how many bits each character is. */
    private static function coded(string $text): string
    {
        return match ($text === '' ? 0 : ord($text[0])) {
            8 => (string) mb_convert_encoding(substr($text, 1), 'UTF-8', 'ISO-8859-1'),
            16 => (string) mb_convert_encoding(substr($text, 1), 'UTF-8', 'UTF-16BE'),
            default => '',
        };
    }
}
