<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Bytes\FileUnwritable;

/**
 * The bin for files whose place a result takes: each lies in a folder of its own with a note of where it was, on the drive that it was on,
 * so that it is put there in one step.
 */
final readonly class ReplacedFiles
{
    /** Folders of it begin so. */
    public const PREFIX = 'replaced-';

    /** In each, the path that its file had. */
    public const NOTE = '.was';

    private function __construct(private string $bin) {}

    /**
     * @param  list<string>  $bins  folders, which need not be there yet
     * @param  string  $folder  where the results are put
     * @return ?self null where none of them is on the drive of the results or can be written
     */
    public static function on(array $bins, string $folder): ?self
    {
        $drive = self::drive($folder);
        foreach ($bins as $bin) {
            $there = self::there($bin);
            if ($drive !== null && self::drive($bin) === $drive && is_writable($there)) {
                return new self($bin);
            }
        }

        return null;
    }

    /**
     * Puts a file there; its own name still leads to it until something else takes it.
     *
     * @param  string  $token  no other file has
     *
     * @throws FileUnwritable where it cannot be put there: it must not be lost
     */
    public function keep(string $path, string $token): void
    {
        if (! is_file($path) || is_link($path)) {
            return;
        }
        $folder = $this->bin.'/'.self::PREFIX.$token;
        $isReady = (is_dir($folder) || @mkdir($folder, 0700, true) || is_dir($folder))
            && @file_put_contents($folder.'/'.self::NOTE, $path) === strlen($path);
        $to = $folder.'/'.basename($path);
        // A file system without links: for a moment nothing has the name, and nothing is lost.
        if (! $isReady || ! file_exists($to) && ! @link($path, $to) && ! @rename($path, $to)) {
            throw FileUnwritable::create($to);
        }
    }

    private static function there(string $folder): string
    {
        while ($folder !== dirname($folder) && ! is_dir($folder)) {
            $folder = dirname($folder);
        }

        return $folder;
    }

    private static function drive(string $folder): ?int
    {
        $facts = @stat(self::there($folder));

        return $facts === false ? null : $facts['dev'];
    }
}
