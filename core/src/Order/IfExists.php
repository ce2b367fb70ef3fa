<?php

declare(strict_types=1);

namespace Octavox\Core\Order;

/** What to do where a file of the wanted name exists. */
enum IfExists: string
{
    case Number = 'number';
    case Replace = 'replace';
    case Skip = 'skip';

    /** Somebody decides before it is made; nothing is made as long as nobody has. */
    case Ask = 'ask';
}
