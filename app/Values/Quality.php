<?php

declare(strict_types=1);

namespace App\Values;

use Octavox\Core\Codec\Codec;
use Octavox\Core\Codec\EncoderSetting;
use Octavox\Core\Codec\SoundForm;
use Octavox\Core\Container\OutputFormat;
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
        return array_values(array_filter(self::cases(), fn (self $quality): bool => $quality !== self::Breathing || $format->abilities()->variable));
    }

    public function setting(): EncoderSetting
    {
        return match ($this) {
            self::Least => EncoderSetting::none(),
            self::Speech => EncoderSetting::near(64),
            self::Podcast => EncoderSetting::near(128),
            self::Music => EncoderSetting::near(192),
            self::Utmost => EncoderSetting::near(320),
            self::Breathing => EncoderSetting::variable(2),
        };
    }

    /** What the format's encoder is really set to, for stereo. */
    public function numbers(OutputFormat $format): string
    {
        $rates = $format->abilities()->rates;
        $rate = $rates === [] || in_array(48000, $rates, true) ? 48000 : $rates[count($rates) - 1];
        $form = $format->form(new SoundForm(Codec::Pcm, $rate, Layout::stereo()), $rate, Layout::stereo(), null);
        $kbps = $format->setting($this->setting(), $form)->kbps;

        return match ($this) {
            self::Breathing => 'variable rate, about 190 kbit/s for stereo',
            self::Least => "kept where it can be, else $kbps kbit/s for stereo",
            default => $kbps.' kbit/s, constant, '.number_format($kbps * 125 * 60 / 1e6, 2).' MB a minute',
        };
    }
}
