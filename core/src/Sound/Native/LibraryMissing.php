<?php

declare(strict_types=1);

namespace Octavox\Core\Sound\Native;

use Octavox\Core\Failure;

/** A shared library that the work needs is not on this machine. */
final class LibraryMissing extends Failure
{
    public static function named(string $library, string $package): self
    {
        return new self(sprintf('The library %s is not installed, so this sound cannot be worked on; install it with: apt-get install %s',
            $library, $package));
    }

    public static function noCalls(): self
    {
        return new self('PHP cannot call libraries here; the work must run from the command line with the FFI extension.');
    }

    public function code(): string
    {
        return 'library-missing';
    }
}
