<?php

declare(strict_types=1);

namespace Octavox\Core\Codec;

use Octavox\Core\Failure;
use Octavox\Core\Media\Codec;

/** A packet's bytes are damaged beyond decoding. */
final class PacketUndecodable extends Failure
{
    public static function at(Codec $codec, int $sample, int $rate, string $reason): self
    {
        return new self(sprintf('The %s sound is damaged at %s (%s) and cannot be decoded; copy the file again from where it came from.',
            CodecModules::of($codec)->label(), self::clock($sample, $rate), $reason));
    }

    public function code(): string
    {
        return 'packet-undecodable';
    }

    /** Minutes, seconds, milliseconds. */
    public static function clock(int $sample, int $rate): string
    {
        $milliseconds = intdiv($sample * 1000, max(1, $rate));

        return sprintf('%d:%02d.%03d', intdiv($milliseconds, 60000), intdiv($milliseconds, 1000) % 60, $milliseconds % 1000);
    }
}
