<?php

declare(strict_types=1);

namespace Octavox\Core\Codec;

/** How a bit rate is held. */
enum RateMode: string
{
    /** In every frame. */
    case Constant = 'constant';

    /** Over the whole, with more for hard moments and less for easy ones. */
    case Average = 'average';
}
