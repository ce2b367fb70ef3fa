<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Failure;

/** Copied packets would close up what the source leaves open. */
final class GapInSound extends Failure
{
    public static function seconds(string $path, float $at, float $seconds, string $format): self
    {
        return new self(sprintf('The sound has a gap of %.2f s at %.1f s, which %s cannot hold when packets are copied: all that '
            .'follows would come too early. Have it re-encoded, or choose AAC (M4A) or Matroska sound, which keep gaps open.', $seconds,
            $at, $format), $path);
    }

    public function code(): string
    {
        return 'gap-in-sound';
    }
}
