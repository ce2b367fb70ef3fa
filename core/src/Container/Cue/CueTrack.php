<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Cue;

/** One track of a disc as its sheet tells it. */
final readonly class CueTrack
{
    /**
     * @param  int  $file  which of the files it begins in
     * @param  int  $frames  from the begin of that file, 75 a second
     */
    public function __construct(public int $number, public int $file, public int $frames, public string $title, public string $performer) {}

    public function heading(): string
    {
        return match (true) {
            $this->title === '' => sprintf('Track %d', $this->number),
            $this->performer === '' => $this->title,
            default => $this->performer.' – '.$this->title,
        };
    }
}
