<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Violations;

use Octavox\Core\Plan\Violation;

/** There is no such field for names. */
final readonly class NameField extends Violation implements OfFormat
{
    /** @param  list<string>  $nearest */
    public function __construct(public string $field, public array $nearest = []) {}
}
