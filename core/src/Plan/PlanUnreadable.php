<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

use Octavox\Core\Failure;

/** A stored plan cannot be carried out: it is damaged, or was made by a later Octavox. */
final class PlanUnreadable extends Failure
{
    public static function broken(string $why): self
    {
        return new self(sprintf('The plan of this result can no longer be read (%s); nothing was made. Order it again.',
            rtrim($why, '.')));
    }

    public static function future(int $version, int $known): self
    {
        return new self(sprintf('The plan of this result is of version %d, and this Octavox knows %d; nothing was made. Order it again, '
            .'or update Octavox.', $version, $known));
    }

    public function code(): string
    {
        return 'plan-unreadable';
    }
}
