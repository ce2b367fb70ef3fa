<?php

declare(strict_types=1);

namespace App\Results\Values;

/** What can be done with several results at once. */
enum ManyResults: string
{
    case Download = 'download';
    case Disc = 'disc';
    case Player = 'player';
    case Page = 'page';
    case Publish = 'publish';
    case Retry = 'retry';
    case Cancel = 'cancel';
    case Forget = 'forget';
    case Bin = 'bin';
    case PutBack = 'put-back';
    case Destroy = 'destroy';

    /** The page on which it is gone on with; null where it is done at once. */
    public function page(): ?string
    {
        return match ($this) {
            self::Player => 'players',
            self::Page => 'page',
            self::Publish => 'publish',
            default => null,
        };
    }
}
