<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Bytes\Fence;
use Octavox\Core\Bytes\FileUnwritable;
use Octavox\Core\Name\NumberedName;
use Octavox\Core\Order\IfExists;

/** A folder where results appear: under a temporary name while they are made, under their own once they are right. */
final readonly class Workplace
{
    private const PREFIX = '.octavox-';

    private const SUFFIX = '.part';

    /** A lock is taken within moments of a file's begin; only older ones without a lock are left over. */
    private const SECONDS_TO_LOCK = 30;

    /** Numbers that are tried where a name is taken. */
    public const MOST_NUMBERS = 10_000;

    /**
     * @param  Originals  $originals  files that must stay whatever is asked for
     * @param  ?ReplacedFiles  $replaced  where files go whose place a result takes; null where they are gone for good
     */
    public function __construct(private string $folder, private Originals $originals = new Originals,
        private ?ReplacedFiles $replaced = null) {}

    /** @throws FileUnwritable */
    public function prepare(): void
    {
        if (! Fence::holdsFolder($this->folder)) {
            throw FileUnwritable::outside($this->folder);
        }
        if (! is_dir($this->folder) && ! @mkdir($this->folder, 0775, true) && ! is_dir($this->folder)) {
            throw FileUnwritable::create($this->folder);
        }
    }

    public function temporary(string $token): string
    {
        return $this->folder.'/'.self::PREFIX.$token.self::SUFFIX;
    }

    /** Where a second process that helps with the same file puts its part. */
    public function beside(string $token): string
    {
        return $this->temporary($token.'-later');
    }

    /** Takes away what one worker left, whose work nobody goes on with. */
    public function forget(string $token): void
    {
        foreach ([$this->temporary($token), $this->beside($token)] as $left) {
            if (is_file($left)) {
                @unlink($left);
            }
        }
    }

    /** Takes away what workers left that were killed; gives how many files. */
    public function sweep(): int
    {
        $removed = 0;
        foreach (glob($this->folder.'/'.self::PREFIX.'*'.self::SUFFIX) ?: [] as $path) {
            $handle = @fopen($path, 'rb');
            if ($handle === false) {
                continue;
            }
            if ((int) @filemtime($path) < time() - self::SECONDS_TO_LOCK && flock($handle, LOCK_EX | LOCK_NB)) {
                $removed += @unlink($path) ? 1 : 0;
            }
            fclose($handle);
        }

        return $removed;
    }

    public function has(string $name): bool
    {
        return self::isTaken($this->folder.'/'.$name);
    }

    /**
     * Gives a finished file its name. Two workers that want the same one each get their own: a link is made in one step
     * and only where nothing is.
     *
     * @return ?string the path, null where it was to be skipped
     *
     * @throws FileUnwritable
     * @throws WouldReplaceSource
     * @throws NameTaken
     */
    public function place(string $temporary, string $name, IfExists $ifExists): ?string
    {
        if ($ifExists === IfExists::Replace) {
            if ($this->originals->hold($this->folder.'/'.$name)) {
                throw WouldReplaceSource::at($this->folder.'/'.$name);
            }
            $this->replaced?->keep($this->folder.'/'.$name, self::token($temporary));
            if (! @rename($temporary, $this->folder.'/'.$name)) {
                throw FileUnwritable::create($this->folder.'/'.$name);
            }

            return $this->folder.'/'.$name;
        }
        for ($number = 1; $number < self::MOST_NUMBERS; $number++) {
            $path = $this->folder.'/'.NumberedName::write($name, $number);
            if ($this->claim($temporary, $path)) {
                return $path;
            }
            if ($ifExists === IfExists::Skip) {
                return null;
            }
            if ($ifExists === IfExists::Ask) {
                throw NameTaken::at($path);
            }
        }

        throw FileUnwritable::create($this->folder.'/'.$name);
    }

    /** What makes a temporary name, and with it what is kept of a replaced file, unique. */
    private static function token(string $temporary): string
    {
        return substr(basename($temporary, self::SUFFIX), strlen(self::PREFIX));
    }

    /** @throws FileUnwritable */
    private function claim(string $temporary, string $path): bool
    {
        if (self::isTaken($path)) {
            return false;
        }
        if (@link($temporary, $path)) {
            unlink($temporary);

            return true;
        }
        // A file system without links: the empty file that claims the name is replaced at once.
        $handle = @fopen($path, 'x');
        if ($handle === false) {
            if (self::isTaken($path)) {
                return false;
            }
            throw FileUnwritable::create($path);
        }
        fclose($handle);

        return @rename($temporary, $path) || throw FileUnwritable::create($path);
    }

    /** Whether something is there, be it a link to nowhere. */
    private static function isTaken(string $path): bool
    {
        clearstatcache(true, $path);

        return file_exists($path) || is_link($path);
    }
}
