<?php

declare(strict_types=1);

namespace Octavox\Core\Container;

/** What a format does to the samples. */
enum Fidelity: string
{
    case Uncompressed = 'uncompressed';
    case Lossless = 'lossless';
    case Lossy = 'lossy';
}
