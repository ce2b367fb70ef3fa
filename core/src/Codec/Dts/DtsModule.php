<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Dts;

use Octavox\Core\Codec\CodecModule;
use Octavox\Core\Codec\Decoder;
use Octavox\Core\Codec\FrameParser;
use Octavox\Core\Codec\PacketTrimmer;
use Octavox\Core\Codec\PlainTrimmer;
use Octavox\Core\Failure;
use Octavox\Core\Media\AudioFormat;

/** DTS: ETSI TS 102 114; its core is decoded. */
final class DtsModule extends CodecModule
{
    public const NEEDS_SET_UP = false;

    public function label(): string
    {
        return 'DTS';
    }

    public function hasConstantRate(): bool
    {
        return true;
    }

    public function preroll(): int
    {
        return 2;
    }

    public function need(AudioFormat $audio): int
    {
        return 300;
    }

    public function canDecode(AudioFormat $audio): bool
    {
        return DtsDecoder::knows($audio);
    }

    /** @throws Failure */
    public function decoder(AudioFormat $audio): Decoder
    {
        return new DtsDecoder($audio);
    }

    public function frames(): FrameParser
    {
        return new DtsFrameParser;
    }

    public function trimmer(): PacketTrimmer
    {
        return new PlainTrimmer;
    }
}
