<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Cue;

use Octavox\Core\Failure;

/** A CUE sheet by which nothing can be read. */
final class SheetUnusable extends Failure
{
    public static function missing(string $path, string $name): self
    {
        return new self(sprintf('The sheet names the file %s, which does not lie beside it; put both into one '
            .'folder, or bring both in at once.', $name), $path);
    }

    public static function outside(string $path, string $name): self
    {
        return new self(sprintf('The sheet names %s, which lies in another folder, so it stays closed; put both into one folder and name '
            .'the file alone.', $name), $path);
    }

    public static function differing(string $path): self
    {
        return new self('The files that the sheet names hold different kinds of samples, or none that can be read as one; take each '
            .'of them by itself.', $path);
    }

    public static function noStarts(string $path): self
    {
        return new self('The sheet says where the pauses before its tracks begin (INDEX 00) and nowhere where the tracks do (INDEX 01), so '
            .'nothing can be divided by it; take the files that it names by themselves, or write the sheet again.', $path);
    }

    public static function data(string $path): self
    {
        return new self('The disc of this sheet holds data beside its sound; take its sound files by themselves.', $path);
    }

    public static function noDisc(string $path): self
    {
        return new self(sprintf('%s is not as an audio disc takes it: WAV with 16 bits, 44,100 Hz and two channels. Order them for an '
            .'audio disc first.', basename($path)), $path);
    }

    public static function scattered(string $name): self
    {
        return new self(sprintf('The sheet %s names files that lie beside it, and these would lie in several folders; put all into one.',
            $name));
    }

    public static function length(int $count, int $most): self
    {
        return new self(sprintf('An audio disc has between one track and %d; here are %d.', $most, $count));
    }

    public function code(): string
    {
        return 'sheet-unusable';
    }
}
