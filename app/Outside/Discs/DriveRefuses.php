<?php

declare(strict_types=1);

namespace App\Outside\Discs;

use Octavox\Core\Failure;

/** What a drive does not do. */
final class DriveRefuses extends Failure
{
    public static function busy(): self
    {
        return new self('Something is being made from this disc, so it stays in; cancel that, or wait until it is done.', null);
    }

    public static function full(): self
    {
        return new self('There is a disc in the tray already; eject it first.', null);
    }

    public static function missing(string $name): self
    {
        return new self(sprintf('%s is no longer beside the drive.', $name), null);
    }

    public static function stuck(string $folder): self
    {
        return new self(sprintf('The tray does not move: nothing can be written in %s. See to its rights, then try again.', $folder), null);
    }

    public function code(): string
    {
        return 'drive-refuses';
    }
}
