<?php

declare(strict_types=1);

namespace Octavox\Core\Disc;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\JoinedBytes;
use Octavox\Core\Bytes\Stretch;

/** The file system that every disc image has had since the first ones: ISO 9660 (ECMA-119). */
final class Iso9660 implements DiscFiles
{
    public const SECTOR = 2048;

    /** ECMA-119, 6.2.1: descriptors begin in sector 16. */
    private const DESCRIPTORS = 16;

    /** How many of them are looked at, and how many bytes of a directory. */
    private const MOST_DESCRIPTORS = 64;

    private const MOST_DIRECTORY = 1 << 20;

    /**
     * @param  array<string, list<array{int, int}>>  $files  sector and length of the parts of each
     */
    private function __construct(private readonly ByteSource $image, private readonly string $label, private readonly array $files) {}

    /**
     * Null where the bytes are no such image.
     *
     * @throws FileUnreadable
     * @throws BytesMissing
     */
    public static function open(ByteSource $image): ?self
    {
        for ($index = 0; $index < self::MOST_DESCRIPTORS; $index++) {
            $at = (self::DESCRIPTORS + $index) * self::SECTOR;
            if ($at + self::SECTOR > $image->size()) {
                return null;
            }
            $descriptor = $image->read($at, self::SECTOR);
            // 8.1: type, standard identifier; 255 ends them
            if (substr($descriptor, 1, 5) !== 'CD001' || $descriptor[0] === "\xFF") {
                return null;
            }
            if ($descriptor[0] === "\1") {
                // 8.4.18: the record of the root directory; 8.4.7: the name of the volume
                $root = self::record(substr($descriptor, 156, 34));
                $video = ($root === null ? [] : self::directory($image, $root[1]))['VIDEO_TS'] ?? null;

                return new self($image, trim(substr($descriptor, 40, 32)), $video === null || ! $video[0] ? []
                    : array_map(fn (array $entry): array => $entry[1], self::directory($image, $video[1])));
            }
        }

        return null;
    }

    public function label(): string
    {
        return $this->label;
    }

    /** @throws BytesMissing */
    public function file(string $name): ?ByteSource
    {
        return isset($this->files[$name]) ? self::bytes($this->image, $this->files[$name]) : null;
    }

    /**
     * @param  list<array{int, int}>  $parts
     *
     * @throws BytesMissing
     */
    private static function bytes(ByteSource $image, array $parts): JoinedBytes
    {
        $stretches = [];
        foreach ($parts as [$sector, $length]) {
            $at = min($sector * self::SECTOR, $image->size());
            $stretches[] = Stretch::in($image, $at, min($length, $image->size() - $at));
        }

        return new JoinedBytes($image->name(), $stretches);
    }

    /**
     * @param  list<array{int, int}>  $parts
     * @return array<string, array{bool, list<array{int, int}>}> whether it is a directory, and where it lies, by name
     *
     * @throws FileUnreadable
     * @throws BytesMissing
     */
    private static function directory(ByteSource $image, array $parts): array
    {
        $source = self::bytes($image, $parts);
        $bytes = $source->read(0, min($source->size(), self::MOST_DIRECTORY));
        $found = [];
        for ($at = 0, $end = strlen($bytes); $at < $end;) {
            $length = ord($bytes[$at]);
            if ($length === 0) {
                // 6.8.1.1: a record never crosses the border of a sector.
                $at = (intdiv($at, self::SECTOR) + 1) * self::SECTOR;

                continue;
            }
            $record = self::record(substr($bytes, $at, $length));
            if ($record !== null && $record[2] !== '') {
                // A file of several extents has a record for each of them (9.1.6).
                $found[$record[2]] = [$record[0], [...$found[$record[2]][1] ?? [], ...$record[1]]];
            }
            $at += $length;
        }

        return $found;
    }

    /**
     * ECMA-119, 9.1.
     *
     * @return ?array{bool, list<array{int, int}>, string} whether it is a directory, where it lies, its name without the version
     */
    private static function record(string $record): ?array
    {
        if (strlen($record) < 34) {
            return null;
        }
        $fields = unpack('Vsector/x4/Vlength', $record, 2);
        $name = substr($record, 33, ord($record[32]));
        $name = rtrim(strtoupper((string) preg_replace('/;\d+$/', '', $name)), '.');

        return $fields === false ? null : [(ord($record[25]) & 2) !== 0, [[$fields['sector'], $fields['length']]], trim($name, "\0\1")];
    }
}
