<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Steps;

/** The picture is copied untouched. */
final readonly class CopyPicture implements StepKind
{
    public function __construct(public string $format) {}
}
