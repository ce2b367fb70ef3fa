<?php

declare(strict_types=1);

namespace Octavox\Core\Disc;

use Octavox\Core\Failure;

/** A disc, or an image of one, that cannot be used. */
final class DiscUnusable extends Failure
{
    public static function noVideo(string $path): self
    {
        return new self('This is an image of a disc that holds files, and no video disc: there is no folder VIDEO_TS on it. Put its files '
            .'on a shelf and take them from there.', $path);
    }

    public static function none(string $path): self
    {
        return new self('This is no disc that Octavox knows: neither a video disc nor an audio disc with a CUE sheet.', $path);
    }

    public static function apart(string $path): self
    {
        return new self('This is the table of contents of a video disc whose other files do not lie beside it. Bring in the whole '
            .'folder at once, take it from a shelf, or bring in an image of the disc.', $path);
    }

    /** @param  string  $what  the file that is damaged */
    public static function damaged(string $path, string $what): self
    {
        return new self(sprintf('The table of contents of this disc (%s) is missing or damaged, so its titles are not known; make a new '
            .'copy of the disc, or take its VOB files by themselves.', $what), $path);
    }

    public static function noTitle(string $path, int $number, int $count): self
    {
        return new self($count === 0 ? 'No title can be found on this disc.'
            : sprintf('There is no title %d on this disc; it has %d.', $number, $count), $path);
    }

    public static function empty(string $path, int $number): self
    {
        return new self(sprintf('Title %d names no part of the disc that is there; the image was cut short, or its tables are damaged.',
            $number), $path);
    }

    public static function protected(string $path): self
    {
        return new self('This disc is protected: its sound is encrypted and stays closed. Octavox opens discs without protection only.',
            $path);
    }

    public function code(): string
    {
        return 'disc-unusable';
    }
}
