<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Mp3;

/** Numbers of MP3 that containers need and that no library has to be asked for. */
final class Mp3Facts
{
    /** Samples that every decoder gives before the first that went in, beside the encoder's delay: ISO 11172-3, its window. */
    public const DECODER_DELAY = 529;

    /** Hz: ISO 11172-3, ISO 13818-3 and the half rates of MPEG-2.5. */
    public const RATES = [8000, 11025, 12000, 16000, 22050, 24000, 32000, 44100, 48000];
}
