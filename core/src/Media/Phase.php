<?php

declare(strict_types=1);

namespace Octavox\Core\Media;

enum Phase: string
{
    case Measuring = 'measuring';
    case Making = 'making';
    case Flushing = 'flushing';
    case Verifying = 'verifying';
}
