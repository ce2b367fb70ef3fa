<?php

declare(strict_types=1);

namespace Octavox\Core\Codec;

/** Whether an encoder may use what two channels have in common. */
enum StereoCoding: string
{
    case Joint = 'joint';
    case Separate = 'separate';
}
