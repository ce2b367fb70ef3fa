<?php

declare(strict_types=1);

namespace App\Orders\Values;

/** What becomes of the rest of an order when one of its results fails. */
enum OnFailure: string
{
    case GoOn = 'go-on';
    case Stop = 'stop';
    case Ask = 'ask';

    public function label(): string
    {
        return match ($this) {
            self::GoOn => 'go on with the rest',
            self::Stop => 'cancel the rest',
            self::Ask => 'wait, and ask me',
        };
    }
}
