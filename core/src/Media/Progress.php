<?php

declare(strict_types=1);

namespace Octavox\Core\Media;

use Octavox\Core\Make\Abandoned;

/** Told how far a result is; may throw {@see Abandoned} to end it. */
interface Progress
{
    /**
     * @param  int  $done  samples of the result
     * @param  int  $of  samples of the result in all
     */
    public function reached(Phase $phase, int $done, int $of): void;
}
