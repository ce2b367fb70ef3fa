<?php

declare(strict_types=1);

namespace Octavox\Core\Order;

/** What to do with a source that is already what was asked for: same container, every packet kept, nothing cut. */
enum IfRight: string
{
    /** A copy of it is made like every other result. */
    case Copy = 'copy';

    /** No result is made of it. */
    case Leave = 'leave';
}
