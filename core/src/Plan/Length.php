<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

/** How long the sound made from a video is. */
enum Length: string
{
    /** As the track presents it. */
    case Sound = 'sound';

    /** As long as the picture: silence after a shorter sound, a longer one is cut. */
    case Picture = 'picture';
}
