<?php

declare(strict_types=1);

namespace App\Values;

use Octavox\Core\Codec\EncoderSetting;

/** A quality with a plain name; its exact numbers are always shown beneath. */
enum Quality: string
{
    case Speech = 'speech';
    case Podcast = 'podcast';
    case Music = 'music';
    case Utmost = 'utmost';
    case Breathing = 'breathing';

    public function label(): string
    {
        return match ($this) {
            self::Speech => 'Spoken word',
            self::Podcast => 'Talk and music',
            self::Music => 'Concert',
            self::Utmost => 'All that fits',
            self::Breathing => 'As each moment needs',
        };
    }

    public function setting(): EncoderSetting
    {
        return match ($this) {
            self::Speech => EncoderSetting::constant(64),
            self::Podcast => EncoderSetting::constant(128),
            self::Music => EncoderSetting::constant(192),
            self::Utmost => EncoderSetting::constant(320),
            self::Breathing => EncoderSetting::variable(2),
        };
    }

    public function numbers(): string
    {
        return match ($this) {
            self::Breathing => 'variable rate, about 190 kbit/s for stereo',
            default => $this->setting()->kbps.' kbit/s, constant, '.number_format($this->setting()->kbps * 125 * 60 / 1e6, 2).' MB a minute',
        };
    }
}
