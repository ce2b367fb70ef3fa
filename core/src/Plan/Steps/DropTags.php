<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Steps;

/** The format has no place for some tags. */
final readonly class DropTags implements StepKind
{
    /** @param  list<string>  $fields */
    public function __construct(public array $fields, public string $format) {}
}
