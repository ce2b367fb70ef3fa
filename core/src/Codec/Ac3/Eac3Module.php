<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Ac3;

use Octavox\Core\Codec\CodecModule;
use Octavox\Core\Codec\FrameParser;
use Octavox\Core\Codec\PacketTrimmer;
use Octavox\Core\Codec\PlainTrimmer;
use Octavox\Core\Media\AudioFormat;

/** E-AC-3: ATSC A/52, annex E; nothing here decodes it. */
final class Eac3Module extends CodecModule
{
    public function label(): string
    {
        return 'E-AC-3';
    }

    public function need(AudioFormat $audio): int
    {
        return 90;
    }

    public function isDecoded(): bool
    {
        return false;
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
