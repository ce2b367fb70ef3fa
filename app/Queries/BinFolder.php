<?php

declare(strict_types=1);

namespace App\Queries;

use App\Values\Drive;
use App\Values\Shelves;

/** Where the bin lies for a file: with what Octavox keeps, or on another drive at the top of the shelf or of the place of results. */
final class BinFolder
{
    /** Hidden, so that no shelf shows it. */
    private const ON_DRIVE = '.octavox-bin';

    public function __construct(private readonly Shelves $shelves) {}

    /**
     * The folder for one thing on the same drive as its file, so that it is moved in one step.
     *
     * @param  string  $thing  such as `source-12`
     * @return ?string null where there is none that can be written into
     */
    public function of(string $path, string $thing): ?string
    {
        $home = config()->string('octavox.home');
        $drive = Drive::number($path);
        $shelf = $this->shelves->holding($path);
        $folders = [$home.'/bin', ...($shelf?->isWritable === true ? [$shelf->root.'/'.self::ON_DRIVE] : []),
            config()->string('octavox.results').'/'.self::ON_DRIVE];
        foreach ($folders as $folder) {
            $top = dirname($folder);
            if (is_dir($top) && Drive::number($top) === $drive && is_writable(is_dir($folder) ? $folder : $top)) {
                return $folder.'/'.$thing;
            }
        }

        return null;
    }
}
