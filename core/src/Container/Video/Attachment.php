<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Video;

/** A file that a video carries for its subtitles or its viewers: a font, a text. */
final readonly class Attachment
{
    /** @param  string  $type  as MIME names it */
    public function __construct(public string $name, public string $type, public string $description, public string $bytes) {}
}
