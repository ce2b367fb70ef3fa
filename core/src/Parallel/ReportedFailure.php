<?php

declare(strict_types=1);

namespace Octavox\Core\Parallel;

use Octavox\Core\Failure;

/** A failure that another process told of, with that process's own code. */
final class ReportedFailure extends Failure
{
    private string $reason = 'failed';

    public static function from(string $code, string $message, ?string $path): self
    {
        $self = new self($message, $path);
        $self->reason = $code;

        return $self;
    }

    public function code(): string
    {
        return $this->reason;
    }
}
