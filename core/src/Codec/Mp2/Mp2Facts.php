<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Mp2;

/** Numbers of MPEG audio layer II that containers need and that no library has to be asked for. */
final class Mp2Facts
{
    /** Hz: ISO 11172-3, ISO 13818-3. */
    public const RATES = [16000, 22050, 24000, 32000, 44100, 48000];

    /** Samples that encoder and decoder give before the first that went in: the synthesis window of ISO 11172-3. */
    public const DELAY = 481;
}
