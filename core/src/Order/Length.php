<?php

declare(strict_types=1);

namespace Octavox\Core\Order;

/** How long sound that is taken out of a video lasts. */
enum Length: string
{
    /** As the track presents it. */
    case Sound = 'sound';

    /** As long as the picture: silence after a shorter sound, a longer one is cut. */
    case Picture = 'picture';
}
