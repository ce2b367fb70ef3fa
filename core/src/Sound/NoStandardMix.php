<?php

declare(strict_types=1);

namespace Octavox\Core\Sound;

use Octavox\Core\Failure;

/** No standard says how one layout becomes the other. */
final class NoStandardMix extends Failure
{
    public static function between(Layout $from, Layout $to): self
    {
        return new self(sprintf('There is no standard way to make %s from %s; choose mono, stereo or the layout as it is.',
            $to->name(), $from->name()));
    }

    public function code(): string
    {
        return 'no-standard-mix';
    }
}
