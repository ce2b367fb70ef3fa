<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Bytes\FileSink;
use Octavox\Core\Failure;
use Octavox\Core\Order\IfExists;

/** A small text that goes with results, such as the sheet of a disc: it gets its name as they do, whole and taking no source's place. */
final class PlacedText
{
    /**
     * @param  string  $folder  that is there
     * @param  Originals  $originals  files that it may not replace
     * @return ?string path of the file, null where one of the name was there and was to be left
     *
     * @throws Failure and leaves nothing behind
     */
    public static function write(string $text, string $folder, string $name, IfExists $ifExists, Originals $originals): ?string
    {
        $workplace = new Workplace($folder, $originals);
        $workplace->prepare();
        $token = bin2hex(random_bytes(8));
        try {
            $sink = FileSink::create($workplace->temporary($token));
            $sink->write($text);
            $sink->flush();
            $sink->close();

            return $workplace->place($sink->path, $name, $ifExists);
        } finally {
            $workplace->forget($token);
        }
    }
}
