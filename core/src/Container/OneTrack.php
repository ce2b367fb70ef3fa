<?php

declare(strict_types=1);

namespace Octavox\Core\Container;

use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Media\Diagnostic;
use Octavox\Core\Media\Track;
use Octavox\Core\Tag\Tags;

/** An opened file that holds one sound track and nothing else. */
abstract class OneTrack implements Demuxer
{
    /** @param  list<Diagnostic>  $diagnostics */
    public function __construct(
        private readonly string $container,
        protected readonly ByteSource $bytes,
        protected readonly Track $track,
        private readonly Tags $tags,
        private readonly array $diagnostics = [],
    ) {}

    public function container(): string
    {
        return $this->container;
    }

    public function source(): ByteSource
    {
        return $this->bytes;
    }

    public function tracks(): array
    {
        return [$this->track];
    }

    public function tags(): Tags
    {
        return $this->tags;
    }

    public function chapters(): array
    {
        return $this->tags->chapters;
    }

    public function diagnostics(): array
    {
        return $this->diagnostics;
    }
}
