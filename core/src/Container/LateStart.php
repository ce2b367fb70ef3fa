<?php

declare(strict_types=1);

namespace Octavox\Core\Container;

use Octavox\Core\Media\AudioFormat;

/** A kind of file that has no place for the samples that its encoder puts first: programs that do not know them begin the sound late. */
interface LateStart
{
    /** @return int samples by which sound that is encoded into it begins late */
    public function startsLate(AudioFormat $audio): int;
}
