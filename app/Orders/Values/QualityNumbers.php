<?php

declare(strict_types=1);

namespace App\Orders\Values;

use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\OutputFormat;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Order\Quality;
use Octavox\Core\Sound\Layout;

/** What an encoder is really set to by a quality, where no source says more: for stereo. */
final class QualityNumbers
{
    private const USUAL_RATE = 48_000;

    public static function say(Quality|RateControl|null $quality, OutputFormat $format): string
    {
        $rates = $format->capabilities()->rates;
        $rate = $rates === [] || in_array(self::USUAL_RATE, $rates, true) ? self::USUAL_RATE : $rates[count($rates) - 1];
        $audio = $format->audio(new AudioFormat(Codec::Pcm, $rate, Layout::stereo()), $rate, Layout::stereo(), null);
        $asked = $quality instanceof Quality ? $quality->rateControl() : $quality;
        $kbps = $format->rateControl($asked ?? RateControl::none(), $audio)->kbps;

        return match (true) {
            $quality === Quality::Breathing => 'variable rate, about 190 kbit/s for stereo',
            $asked?->quality !== null => 'variable rate: as much as each moment needs',
            $quality === Quality::Least => "kept where it can be, else as much as loses nothing more: at most $kbps kbit/s for stereo",
            default => $kbps.' kbit/s, constant, '.number_format($kbps * 125 * 60 / 1e6, 2).' MB a minute',
        };
    }
}
