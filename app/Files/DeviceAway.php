<?php

declare(strict_types=1);

namespace App\Files;

use Octavox\Core\Failure;

/** What was to be put on a player that is not plugged in, or that is too full. */
final class DeviceAway extends Failure
{
    public static function now(string $folder): self
    {
        return new self('The player is not plugged in, so nothing can be put on it; nothing was lost. Plug it in, and go on from its page.',
            $folder);
    }

    public function code(): string
    {
        return 'player-away';
    }
}
