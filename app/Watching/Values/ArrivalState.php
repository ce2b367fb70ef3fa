<?php

declare(strict_types=1);

namespace App\Watching\Values;

/** How far a file is that landed in the folder of a standing order. */
enum ArrivalState: string
{
    /** It may still grow. */
    case Arriving = 'arriving';

    /** It is a source that is being read. */
    case Taken = 'taken';

    /** What is to be made of it was ordered. */
    case Ordered = 'ordered';

    /** Nothing is to be made of it. */
    case Left = 'left';
    case Failed = 'failed';

    public function label(): string
    {
        return match ($this) {
            self::Arriving => 'arriving',
            self::Taken => 'being read',
            self::Ordered => 'ordered',
            self::Left => 'left out',
            self::Failed => 'failed',
        };
    }
}
