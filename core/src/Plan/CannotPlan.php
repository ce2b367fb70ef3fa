<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

use Octavox\Core\Failure;
use Octavox\Core\Plan\Violations\OfFormat;

/** What is asked for cannot be made of this source. */
final class CannotPlan extends Failure
{
    private Violation $violation;

    public static function because(Violation $violation, string $path): self
    {
        $self = new self(ViolationWords::says($violation), $path);
        $self->violation = $violation;

        return $self;
    }

    public function violation(): Violation
    {
        return $this->violation;
    }

    public function code(): string
    {
        return $this->violation instanceof OfFormat ? 'not-offered' : 'cannot-plan';
    }
}
