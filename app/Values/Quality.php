<?php

declare(strict_types=1);

namespace App\Values;

use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\OutputFormat;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Sound\Layout;

/** A quality with a plain name; its exact numbers are always shown beneath. */
enum Quality: string
{
    case Least = 'least';
    case Speech = 'speech';
    case Podcast = 'podcast';
    case Music = 'music';
    case Utmost = 'utmost';
    case Breathing = 'breathing';

    public function label(): string
    {
        return match ($this) {
            self::Least => 'Least change',
            self::Speech => 'Spoken word',
            self::Podcast => 'Talk and music',
            self::Music => 'Concert',
            self::Utmost => 'All that fits',
            self::Breathing => 'As each moment needs',
        };
    }

    /** @return list<self> those that the format has a place for */
    public static function offered(OutputFormat $format): array
    {
        return array_values(array_filter(self::cases(), fn (self $quality): bool => $quality !== self::Breathing || $format->capabilities()->variable));
    }

    public function setting(): RateControl
    {
        return match ($this) {
            self::Least => RateControl::none(),
            self::Speech => RateControl::near(64),
            self::Podcast => RateControl::near(128),
            self::Music => RateControl::near(192),
            self::Utmost => RateControl::near(320),
            self::Breathing => RateControl::variable(2),
        };
    }

    /** What the format's encoder is really set to, for stereo. */
    public function numbers(OutputFormat $format): string
    {
        $rates = $format->capabilities()->rates;
        $rate = $rates === [] || in_array(48000, $rates, true) ? 48000 : $rates[count($rates) - 1];
        $form = $format->audio(new AudioFormat(Codec::Pcm, $rate, Layout::stereo()), $rate, Layout::stereo(), null);
        $kbps = $format->setting($this->setting(), $form)->kbps;

        return match ($this) {
            self::Breathing => 'variable rate, about 190 kbit/s for stereo',
            self::Least => "kept where it can be, else $kbps kbit/s for stereo",
            default => $kbps.' kbit/s, constant, '.number_format($kbps * 125 * 60 / 1e6, 2).' MB a minute',
        };
    }
}
