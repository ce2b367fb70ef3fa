<?php

declare(strict_types=1);

namespace Octavox\Core\Order;

/** What becomes of a video's picture. */
enum PictureChoice: string
{
    case Keep = 'keep';
    case Leave = 'leave';
}
