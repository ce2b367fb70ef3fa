<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Cue;

/** One track of a disc as its sheet tells it. */
final class CueTrack
{
    /** Which of the files it begins in, and frames from the start of that file, 75 a second. */
    public int $file = 0;

    public int $frames = 0;

    /** @var ?array{int, int} file and frames at which the gap before it begins; null where there is none in the files */
    public ?array $gap = null;

    public bool $isPlaced = false;

    public string $title = '';

    public string $performer = '';

    public string $songwriter = '';

    public string $isrc = '';

    public bool $isEmphasised = false;

    public function __construct(public readonly int $number) {}

    /** @param  string  $usual  the performer of the whole disc */
    public function heading(string $usual): string
    {
        return match (true) {
            $this->title === '' => sprintf('Track %d', $this->number),
            $this->performer === '' || $this->performer === $usual => $this->title,
            default => $this->performer.' – '.$this->title,
        };
    }
}
