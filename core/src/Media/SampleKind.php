<?php

declare(strict_types=1);

namespace Octavox\Core\Media;

/** How one PCM sample is written. */
enum SampleKind: string
{
    case Signed = 'signed';
    case Unsigned = 'unsigned';
    case Float = 'float';
    case ALaw = 'alaw';
    case MuLaw = 'ulaw';
}
