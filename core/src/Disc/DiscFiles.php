<?php

declare(strict_types=1);

namespace Octavox\Core\Disc;

use Octavox\Core\Bytes\ByteSource;

/** The files of a disc's folder VIDEO_TS, wherever they lie. */
interface DiscFiles
{
    /** What the disc is called; empty where nothing says it. */
    public function label(): string;

    /** A file by its name, in capitals; null where there is none. What an image that was cut short lacks of it is left out. */
    public function file(string $name): ?ByteSource;
}
