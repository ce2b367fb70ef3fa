<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Ac3;

use Octavox\Core\Codec\CodecModule;
use Octavox\Core\Codec\Decoder;
use Octavox\Core\Codec\FrameParser;
use Octavox\Core\Codec\PacketTrimmer;
use Octavox\Core\Codec\PlainTrimmer;
use Octavox\Core\Failure;
use Octavox\Core\Media\AudioFormat;

/** AC-3: ATSC A/52. */
final class Ac3Module extends CodecModule
{
    public function label(): string
    {
        return 'AC-3';
    }

    public function hasConstantRate(): bool
    {
        return true;
    }

    /** For the overlap of its windows: ATSC A/52, 7.9.4. */
    public function preroll(): int
    {
        return 2;
    }

    public function need(AudioFormat $audio): int
    {
        return 130;
    }

    public function leastKbps(): array
    {
        return [96, 192];
    }

    /** @throws Failure */
    public function decoder(AudioFormat $audio): Decoder
    {
        return new Ac3Decoder($audio);
    }

    public function frames(): FrameParser
    {
        return new Ac3FrameParser;
    }

    public function trimmer(): PacketTrimmer
    {
        return new PlainTrimmer;
    }
}
