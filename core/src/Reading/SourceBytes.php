<?php

declare(strict_types=1);

namespace Octavox\Core\Reading;

use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileBytes;
use Octavox\Core\Container\Cue\CueFormat;
use Octavox\Core\Container\StatedAs;
use Octavox\Core\Disc\StatedTitle;
use Octavox\Core\Failure;

/** All bytes by which a source is what it is: of a title those of the title, of a sheet also those of the files that it names. */
final class SourceBytes
{
    /** @throws Failure */
    public static function open(string $path, ?StatedAs $stated): ByteSource
    {
        $bytes = FileBytes::open($path);

        return $stated instanceof StatedTitle || (new CueFormat)->recognises($bytes)
            ? Opener::open($path, $stated)->media->source() : $bytes;
    }
}
