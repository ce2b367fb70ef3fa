<?php

declare(strict_types=1);

namespace App\Files;

use Octavox\Core\Make\ReplacedFiles;

/** Where the bin lies for a file: with what Octavox keeps, or on another drive at the top of the shelf or of the place of results. */
final class BinFolder
{
    /** Hidden, so that no shelf shows it. */
    private const ON_DRIVE = '.octavox-bin';

    public function __construct(private readonly Shelves $shelves) {}

    /**
     * The bins for a file, of which one on its drive is taken.
     *
     * @return list<string>
     */
    public function bins(string $path): array
    {
        $shelf = $this->shelves->holding($path);

        return [config()->string('octavox.home').'/bin', ...($shelf?->isWritable === true ? [$shelf->root.'/'.self::ON_DRIVE] : []),
            config()->string('octavox.results').'/'.self::ON_DRIVE];
    }

    /** @return list<string> all bins that there are */
    public function all(): array
    {
        $shelves = array_map(fn (Shelf $shelf): string => $shelf->root.'/'.self::ON_DRIVE, $this->shelves->writable());

        return array_values(array_unique([config()->string('octavox.home').'/bin', ...$shelves,
            config()->string('octavox.results').'/'.self::ON_DRIVE]));
    }

    /** Whether a file whose place a result takes goes into a bin; it is gone for good where it does not. */
    public function takes(string $path): bool
    {
        return ReplacedFiles::on($this->bins($path), dirname($path)) !== null;
    }

    /**
     * The folder for one thing on the same drive as its file, so that it is moved in one step.
     *
     * @param  string  $thing  such as `source-12`
     * @return ?string null where there is none that can be written into
     */
    public function place(string $path, string $thing): ?string
    {
        $drive = FolderDrive::number($path);
        foreach ($this->bins($path) as $folder) {
            $top = dirname($folder);
            if (is_dir($top) && FolderDrive::number($top) === $drive && is_writable(is_dir($folder) ? $folder : $top)) {
                return $folder.'/'.$thing;
            }
        }

        return null;
    }
}
