<?php

declare(strict_types=1);

namespace App\Settings\Values;

/** What a token lets a script do. */
enum AccessScope: string
{
    case Read = 'read';
    case Bring = 'bring';
    case Order = 'order';
    case Keep = 'keep';

    public function label(): string
    {
        return match ($this) {
            self::Read => 'look at everything and fetch results',
            self::Bring => 'bring sources in and take them off the list',
            self::Order => 'plan and order, pause and cancel',
            self::Keep => 'keep recipes and destinations',
        };
    }
}
