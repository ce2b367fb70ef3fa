<?php

declare(strict_types=1);

namespace App\Work;

/**
 * What workers do, each kind on a queue of its name; the rows that wait say what exactly, but for drawings and covers, which are asked
 * for.
 */
enum WorkKind: string
{
    case Making = 'making';
    case Reading = 'reading';
    case Borders = 'borders';
    case Analysis = 'analysis';
    case Copying = 'copying';
    case Drawings = 'drawings';
    case Covers = 'covers';

    /** Whether a row whose worker was interrupted waits behind those that nobody has tried: what hangs again then holds up no other. */
    public function triesTheInterruptedLast(): bool
    {
        // Results have turns of their own.
        return $this !== self::Making;
    }
}
