<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Matroska;

/** Where an attached file stands: RFC 9559, 5.1.6. */
final readonly class AttachedFile
{
    public function __construct(public string $name, public string $type, public string $description, public int $at, public int $bytes) {}
}
