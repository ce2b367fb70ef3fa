<?php

declare(strict_types=1);

namespace Octavox\Core\Disc;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileBytes;
use Octavox\Core\Bytes\FileUnreadable;

/** A disc that was copied as a folder; its file VIDEO_TS.IFO stands for it, the others lie beside. */
final class DiscFolder implements DiscFiles
{
    /** Name of the file that stands for a disc, in whatever case. */
    public const FIRST = 'VIDEO_TS.IFO';

    private const HEAD = 'DVDVIDEO-VMG';

    private const MOST_NAMES = 10_000;

    /** @param  array<string, string>  $names  as they lie there, by their names in capitals */
    private function __construct(private readonly string $folder, private readonly array $names) {}

    /**
     * The file that stands for the disc which a folder is.
     *
     * @param  list<string>  $names  of its files
     * @return ?string null where it is none
     */
    public static function first(array $names): ?string
    {
        return array_values(array_filter($names, fn (string $name): bool => strtoupper($name) === self::FIRST))[0] ?? null;
    }

    /**
     * Null where the bytes are not a disc's first file.
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public static function open(ByteSource $first): ?self
    {
        if ($first->size() < self::least() || $first->read(0, strlen(self::HEAD)) !== self::HEAD || ! is_file($first->name())) {
            return null;
        }
        $folder = dirname($first->name());
        $names = [];
        foreach (array_slice(@scandir($folder) ?: [], 0, self::MOST_NAMES) as $name) {
            $names[strtoupper($name)] ??= $name;
        }

        return new self($folder, $names);
    }

    public function label(): string
    {
        $parent = strtoupper(basename($this->folder)) === 'VIDEO_TS' ? dirname($this->folder) : $this->folder;

        return basename($parent);
    }

    /** @throws FileUnreadable */
    public function file(string $name): ?ByteSource
    {
        return isset($this->names[$name]) && is_file($this->folder.'/'.$this->names[$name])
            ? FileBytes::open($this->folder.'/'.$this->names[$name]) : null;
    }

    /** One sector: a table of contents is never shorter. */
    private static function least(): int
    {
        return Iso9660::SECTOR;
    }
}
