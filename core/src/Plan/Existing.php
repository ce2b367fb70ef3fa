<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

/** What to do where a file of the name is there already. */
enum Existing: string
{
    case Number = 'number';
    case Replace = 'replace';
    case Skip = 'skip';
}
