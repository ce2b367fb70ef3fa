<?php

declare(strict_types=1);

namespace Octavox\Core\Order;

use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\Capabilities;

/** A rate control with a plain name, for people who do not think in numbers; the numbers are always shown beside it. */
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

    /** @return list<self> those that a format can be set to */
    public static function offered(Capabilities $capabilities): array
    {
        return array_values(array_filter(self::cases(), fn (self $one): bool => $one !== self::Breathing || $capabilities->variable));
    }

    /** The quality whose rate control this is; null where it has other numbers. */
    public static function of(?RateControl $rateControl): ?self
    {
        foreach (self::cases() as $one) {
            if ($one->rateControl() == $rateControl?->held(null)) {
                return $one;
            }
        }

        return null;
    }

    /** Null leaves the choice to the source. */
    public function rateControl(): ?RateControl
    {
        return match ($this) {
            self::Least => null,
            self::Speech => RateControl::near(64),
            self::Podcast => RateControl::near(128),
            self::Music => RateControl::near(192),
            self::Utmost => RateControl::near(320),
            self::Breathing => RateControl::variable(2),
        };
    }
}
