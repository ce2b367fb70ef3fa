<?php

declare(strict_types=1);

namespace App\Files;

use Octavox\Core\Make\ReplacedFiles;

/** A file in the bin whose place a result has taken. */
final readonly class ReplacedFile
{
    private const LONGEST_PATH = 8192;

    private function __construct(public string $path, public string $was, public int $bytes, public int $since) {}

    /** @return ?self null where a folder of the bin holds none */
    public static function in(string $folder): ?self
    {
        $was = (string) @file_get_contents($folder.'/'.ReplacedFiles::NOTE, length: self::LONGEST_PATH);
        $path = $folder.'/'.basename($was);
        $facts = $was === '' || is_link($path) ? false : @stat($path);

        return $facts === false ? null : new self($path, $was, $facts['size'], $facts['ctime']);
    }

    /** By which it is named on the page. */
    public function mark(): string
    {
        return hash('xxh128', $this->path);
    }

    public function name(): string
    {
        return basename($this->was);
    }

    public function folder(): string
    {
        return dirname($this->path);
    }
}
