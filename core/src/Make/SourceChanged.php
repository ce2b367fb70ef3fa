<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Failure;

/** The source is not what it was when the plan was made. */
final class SourceChanged extends Failure
{
    public static function size(string $path, int $then, int $now): self
    {
        return new self(sprintf('The source was %s bytes long when this was planned and is %s now, so the plan no longer fits; plan it '
            .'again.', number_format($then), number_format($now)), $path);
    }

    public static function track(string $path): self
    {
        return new self('The track that was chosen is no longer in the source; plan it again.', $path);
    }

    public function code(): string
    {
        return 'source-changed';
    }
}
