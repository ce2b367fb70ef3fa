<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

use Octavox\Core\Container\OutputFormat;
use Octavox\Core\Container\Raw\HeaderlessFormat;
use Octavox\Core\Failure;
use Octavox\Core\Media\AudioFormat;

/** The one thing that planning cannot know from what was read of a source: where the packets around two marks begin and end. */
interface CutFinder
{
    /**
     * The cut nearest to the marks: exact where the result's container can say what not to present, else on the borders around them.
     *
     * @param  int  $from  first sample wanted, counted in the coded sound
     * @param  int  $until  first sample no longer wanted
     * @return ?KeptCut null where this codec cannot be cut without decoding
     *
     * @throws Failure
     */
    public function around(string $path, ?HeaderlessFormat $stated, int $number, AudioFormat $audio, OutputFormat $format, int $from, int $until): ?KeptCut;
}
