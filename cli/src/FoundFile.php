<?php

declare(strict_types=1);

namespace Octavox\Cli;

use Octavox\Core\Container\EmptyFile;
use Octavox\Core\Container\UnknownFormat;
use Octavox\Core\Disc\StatedTitle;
use Octavox\Core\Failure;
use Octavox\Core\Plan\SourceLabel;
use Octavox\Core\Reading\UsualExtensions;

/** A file that was named, or found in a folder that was named. */
final readonly class FoundFile
{
    /**
     * @param  string  $folder  folders beneath the one that was named, with that one's own name before; empty for a file that was named
     * @param  ?StatedTitle  $title  which title of the disc that the file is
     * @param  ?string  $besides  why it is no recording by itself where its folder is taken as a whole; null where it is one
     * @param  list<string>  $parts  paths of the files that the recording has besides this one
     */
    public function __construct(public string $path, public bool $named, private string $folder = '', public ?StatedTitle $title = null,
        public ?string $besides = null, public array $parts = []) {}

    public function title(int $number): self
    {
        return new self($this->path, $this->named, $this->folder, new StatedTitle($number), parts: $this->parts);
    }

    public function label(): SourceLabel
    {
        return new SourceLabel($this->title?->name($this->path), $this->named ? null : $this->folder);
    }

    /** Whether it only lay beside the recordings of a folder, as a chat text or a picture does: then it is told of, and is no failure. */
    public function isNoMedia(Failure $failure): bool
    {
        return ! $this->named && ($failure instanceof UnknownFormat || $failure instanceof EmptyFile)
            && ! UsualExtensions::isAny(pathinfo($this->path, PATHINFO_EXTENSION));
    }
}
