<?php

declare(strict_types=1);

namespace Octavox\Core\Sound;

use Octavox\Core\Failure;

/** A format has no place for a channel of the sound, and another speaker must not play it. */
final class LayoutNotCarried extends Failure
{
    /** @param  list<Layout>  $layouts  that the format has */
    public static function by(string $format, Layout $layout, array $layouts): self
    {
        $has = array_unique(array_map(fn (Layout $one): string => $one->letters(), $layouts));

        return new self(sprintf('%s has no place for the channels %s; it has %s. Ask for stereo, choose channels by hand, or a format '
            .'that carries them all, such as WAV.', $format, $layout->letters(), implode(', ', $has)));
    }

    public function code(): string
    {
        return 'layout-not-carried';
    }
}
