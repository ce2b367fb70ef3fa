<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

/** Whether the coded sound is copied untouched, or decoded, shaped and encoded. */
enum Action: string
{
    case Kept = 'kept';
    case Remade = 'remade';
}
