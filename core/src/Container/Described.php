<?php

declare(strict_types=1);

namespace Octavox\Core\Container;

use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Media\Diagnostic;
use Octavox\Core\Media\Track;
use Octavox\Core\Tag\Chapter;
use Octavox\Core\Tag\Tags;

/** What an opened file of several tracks says of itself, from properties of these names; without chapters unless it has its own. */
trait Described
{
    public function source(): ByteSource
    {
        return $this->bytes;
    }

    /** @return list<Track> */
    public function tracks(): array
    {
        return $this->tracks;
    }

    public function tags(): Tags
    {
        return $this->tags;
    }

    /** @return list<Chapter> */
    public function chapters(): array
    {
        return [];
    }

    /** @return list<Diagnostic> */
    public function diagnostics(): array
    {
        return $this->diagnostics;
    }
}
