<?php

declare(strict_types=1);

namespace Octavox\Cli;

use Octavox\Core\Disc\DiscTitle;
use Octavox\Core\Disc\VideoDisc;
use Octavox\Core\Failure;
use Octavox\Core\Reading\FolderRecordings;
use Octavox\Core\Reading\Playlist;

/** The files that paths stand for: a folder stands for all files below it, a playlist for those that it names. */
final class Files
{
    /** @var array<string, true> folders that were entered, by device and inode: links can lead in a circle */
    private array $entered = [];

    /**
     * @param  list<string>  $paths
     * @param  ?int  $title  of discs this title alone
     * @return iterable<FoundFile> in the order given, those of a folder by name; hidden ones and what is no regular file are left out of
     *          folders
     */
    public static function under(array $paths, ?int $title = null): iterable
    {
        foreach ((new self)->found($paths) as $file) {
            yield from self::titles($file, $title);
        }
    }

    /**
     * @return iterable<FoundFile> the titles of a disc, each by itself; what is none as it is
     */
    private static function titles(FoundFile $file, ?int $title): iterable
    {
        if ($file->besides !== null) {
            return yield $file;
        }
        try {
            $numbers = array_map(fn (DiscTitle $one): int => $one->number, VideoDisc::titlesIn($file->path));
        } catch (Failure) {
            // What is wrong with it is said when it is read.
            $numbers = [];
        }
        if ($numbers === []) {
            return yield $file;
        }
        foreach ($title === null ? $numbers : [$title] as $number) {
            yield $file->title($number);
        }
    }

    /**
     * @param  list<string>  $paths
     * @return iterable<FoundFile>
     */
    private function found(array $paths): iterable
    {
        foreach ($paths as $path) {
            if (is_dir($path)) {
                yield from $this->in($path, basename((string) realpath($path)));
            } elseif (Playlist::isOne($path) && is_file($path)) {
                yield from self::listed($path);
            } else {
                yield new FoundFile($path, true);
            }
        }
    }

    /**
     * @return iterable<FoundFile> those that a playlist names, as if each were named here; one that is missing says so when it is opened
     */
    private static function listed(string $list): iterable
    {
        foreach (Playlist::read($list)->names as $name) {
            yield new FoundFile(str_starts_with($name, '/') ? $name : dirname($list).'/'.$name, true);
        }
    }

    /** @return iterable<FoundFile> */
    private function in(string $folder, string $tree): iterable
    {
        $facts = @stat($folder);
        $identity = $facts === false ? $folder : $facts['dev'].':'.$facts['ino'];
        if (isset($this->entered[$identity])) {
            return;
        }
        $this->entered[$identity] = true;
        $names = array_values(array_filter(@scandir($folder) ?: [], fn (string $name): bool => ! str_starts_with($name, '.')));
        $files = array_values(array_filter($names, fn (string $name): bool => is_file("$folder/$name")));
        $recordings = FolderRecordings::of($folder, $files);
        $isFile = array_flip($files);
        foreach ($names as $name) {
            $path = rtrim($folder, '/').'/'.$name;
            if (! isset($isFile[$name])) {
                yield from is_dir($path) ? $this->in($path, $tree.'/'.$name) : [];
            } else {
                yield new FoundFile($path, false, $tree, besides: $recordings->says($name),
                    parts: array_map(fn (string $part): string => rtrim($folder, '/').'/'.$part, $recordings->parts($name)));
            }
        }
    }
}
