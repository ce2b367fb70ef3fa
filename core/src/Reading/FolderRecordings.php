<?php

declare(strict_types=1);

namespace Octavox\Core\Reading;

use Octavox\Core\Container\Cue\CueFormat;
use Octavox\Core\Container\Cue\CueSheet;
use Octavox\Core\Container\Cue\SheetFiles;
use Octavox\Core\Disc\DiscFolder;

/**
 * Which files of a folder that is taken as a whole are recordings by themselves: the first file of a video disc stands for all others of
 * its folder, a sheet for the image or the one recording that it divides; a sheet over recordings of one track each says no more than
 * these.
 */
final readonly class FolderRecordings
{
    private const MOST_SHEETS = 100;

    /**
     * @param  array<string, list<string>>  $parts  files that belong to a recording, by the file that stands for it
     * @param  array<string, string>  $standing  the file that stands for it, by each file that is none by itself
     * @param  array<string, string>  $needless  the first of the recordings, by each sheet over such as are there by themselves
     */
    private function __construct(private array $parts, private array $standing, private array $needless) {}

    /**
     * @param  string  $folder  path
     * @param  list<string>  $names  of its files
     */
    public static function of(string $folder, array $names): self
    {
        $first = DiscFolder::first($names);
        if ($first !== null) {
            $others = array_values(array_diff($names, [$first]));

            return new self([$first => $others], array_fill_keys($others, $first), []);
        }
        $parts = $standing = $needless = [];
        $sheets = array_filter($names, self::mayStandForOthers(...));
        foreach (array_slice($sheets, 0, self::MOST_SHEETS) as $sheet) {
            $files = self::named("$folder/$sheet", $names);
            $recordings = array_filter($files, fn (string $name): bool => UsualExtensions::isAny(pathinfo($name, PATHINFO_EXTENSION)));
            if (count($recordings) > 1) {
                $needless[$sheet] = array_values($recordings)[0];
            } elseif ($files !== []) {
                $parts[$sheet] = $files;
                $standing += array_fill_keys($files, $sheet);
            }
        }

        return new self($parts, $standing, $needless);
    }

    /** Whether a file may stand for others, by its name: a sheet, or the first file of a video disc. */
    public static function mayStandForOthers(string $name): bool
    {
        return strtolower(pathinfo($name, PATHINFO_EXTENSION)) === 'cue' || DiscFolder::first([$name]) !== null;
    }

    /** @return list<string> paths of the files in which the sound of a source lies besides its own; none of most */
    public static function behind(string $path): array
    {
        $name = basename($path);
        if (! self::mayStandForOthers($name)) {
            return [];
        }
        $isFirst = DiscFolder::first([$name]) !== null;
        $names = array_values(array_diff(@scandir(dirname($path)) ?: [], [$name, '.', '..']));
        $sheet = $isFirst ? null : self::sheet($path);
        $meant = $sheet === null ? [] : self::meant($sheet, $names);

        $files = $isFirst ? $names : array_values(array_filter($meant, is_string(...)));

        return array_map(fn (string $one): string => dirname($path).'/'.$one, $files);
    }

    /** Why a file of the folder is no recording by itself; null where it is one, or nothing is known of it. */
    public function says(string $name): ?string
    {
        return match (true) {
            isset($this->needless[$name]) => 'The recordings that it names lie beside it, a track each.',
            isset($this->standing[$name]) => sprintf('It belongs to %s, which stands for it.', $this->standing[$name]),
            default => null,
        };
    }

    /** The file behind which another one stands that is no recording by itself; null where it is one, or nothing is known of it. */
    public function before(string $name): ?string
    {
        return $this->needless[$name] ?? $this->standing[$name] ?? null;
    }

    /** @return list<string> names of the files that belong to a recording, besides the one that stands for it */
    public function parts(string $name): array
    {
        return $this->parts[$name] ?? [];
    }

    /**
     * @param  list<string>  $names
     * @return list<string> the files that a sheet divides; none where it is no sheet, holds data, names too many, or one of them is
     *                      missing
     */
    private static function named(string $path, array $names): array
    {
        $sheet = self::sheet($path);
        $files = $sheet === null || $sheet->hasData || count($sheet->files) > CueFormat::MOST_FILES ? [] : self::meant($sheet, $names);

        return in_array(null, $files, true) ? [] : array_values(array_unique($files));
    }

    private static function sheet(string $path): ?CueSheet
    {
        $text = is_file($path) ? (string) @file_get_contents($path, length: CueSheet::MOST_BYTES + 1) : '';

        return CueSheet::isOne($text) ? CueSheet::parse($text) : null;
    }

    /**
     * @param  list<string>  $names
     * @return list<?string> of each file that the sheet names which it is; null where that cannot be said
     */
    private static function meant(CueSheet $sheet, array $names): array
    {
        return array_map(fn (array $file): ?string => SheetFiles::meant($file[0], $file[1], $names),
            array_slice($sheet->files, 0, CueFormat::MOST_FILES));
    }
}
