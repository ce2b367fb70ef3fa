<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Aac;

use Octavox\Core\Codec\RateControl;
use Octavox\Core\Media\AudioFormat;

/** What the AAC encoder can be set to. */
final class AacRates
{
    /** ISO/IEC 14496-3, table 1.18, as far as the encoder goes, in Hz */
    public const ALL = [8000, 11025, 12000, 16000, 22050, 24000, 32000, 44100, 48000, 64000, 88200, 96000];

    public const KBPS = [32, 48, 64, 96, 128, 160, 192, 256, 320, 384, 448, 512, 640];

    private const USUAL_KBPS_EACH = 96;

    /** ISO/IEC 14496-3, 4.5.3.3: six bits a sample of each channel fill the decoder's buffer; the encoder refuses more. */
    private const MOST_BITS_A_SAMPLE = 6;

    /** The encoder asks four bits for every hundred samples. */
    private const LEAST_KBPS_EACH = 8;

    public static function nearest(RateControl $wished, AudioFormat $audio): RateControl
    {
        $kbps = $wished->kbps ?: self::USUAL_KBPS_EACH * $audio->channels();
        $most = min(intdiv(self::MOST_BITS_A_SAMPLE * $audio->rate * $audio->channels(), 1000), 160 * $audio->channels());

        return RateControl::exactly(max(self::LEAST_KBPS_EACH * $audio->channels(), min($most, $kbps)));
    }
}
