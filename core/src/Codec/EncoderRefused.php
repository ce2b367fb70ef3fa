<?php

declare(strict_types=1);

namespace Octavox\Core\Codec;

use Octavox\Core\Failure;
use Octavox\Core\Media\Codec;

/** An encoder does not take the asked combination. */
final class EncoderRefused extends Failure
{
    public static function audio(Codec $codec, int $rate, int $channels): self
    {
        return new self(sprintf('%s cannot be made at %s Hz with %d channels; choose another rate or fewer channels.',
            CodecModules::of($codec)->label(),
            number_format($rate), $channels));
    }

    public static function failed(Codec $codec, int $status): self
    {
        return new self(sprintf('The %s encoder stopped (status %d); try again, and report it if it happens twice.',
            CodecModules::of($codec)->label(), $status));
    }

    public function code(): string
    {
        return 'encoder-refused';
    }
}
