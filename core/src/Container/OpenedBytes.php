<?php

declare(strict_types=1);

namespace Octavox\Core\Container;

use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Media\Diagnostic;
use Octavox\Core\Tag\Tags;

/** What a reader knows of a file beside its sound: which container it is, where its bytes are, what it says of itself. */
final readonly class OpenedBytes
{
    /** @param  list<Diagnostic>  $diagnostics */
    public function __construct(public string $container, public ByteSource $bytes, public Tags $tags, public array $diagnostics = []) {}

    /** @param  list<Diagnostic>  $diagnostics */
    public function with(array $diagnostics): self
    {
        return new self($this->container, $this->bytes, $this->tags, [...$this->diagnostics, ...$diagnostics]);
    }
}
