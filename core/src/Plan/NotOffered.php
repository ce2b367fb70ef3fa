<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

use Octavox\Core\Failure;

/** A number was asked for that the kind of file does not have; it is refused with the nearest that it has, never changed in silence. */
final class NotOffered extends Failure
{
    /** @param  list<int>  $nearest  Hz */
    public static function rate(string $format, int $wished, array $nearest): self
    {
        return new self(sprintf('%s has no rate of %s Hz; the nearest it has: %s Hz.', $format, number_format($wished), implode(' and ', array_map(number_format(...), $nearest))));
    }

    /** @param  list<int>  $nearest  bits; empty where the format has no bit depth to choose */
    public static function bits(string $format, int $wished, array $nearest): self
    {
        return new self($nearest === []
            ? sprintf('%s has no bit depth to choose, so it cannot be made with %d bits; leave the bits out.', $format, $wished)
            : sprintf('%s is not made with %d bits; the nearest it has: %s bits.', $format, $wished, implode(' and ', $nearest)));
    }

    /** @param  int  $rate  Hz */
    public static function kbps(string $format, int $wished, int $nearest, int $rate, int $channels): self
    {
        return new self($nearest === 0
            ? sprintf('%s has no bit rate to choose, so it cannot be made with %d kbit/s; leave the bit rate out.', $format, $wished)
            : sprintf('%s is not made with %d kbit/s at %s Hz and %d %s; the nearest it has: %d kbit/s.', $format, $wished, number_format($rate), $channels, $channels === 1 ? 'channel' : 'channels', $nearest));
    }

    public static function variable(string $format): self
    {
        return new self(sprintf('%s has no variable rate here; choose a bit rate instead, or MP3 or Vorbis.', $format));
    }

    public function code(): string
    {
        return 'not-offered';
    }
}
