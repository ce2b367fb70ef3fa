<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

use Octavox\Core\Codec\SoundForm;
use Octavox\Core\Container\OutputFormat;
use Octavox\Core\Container\Raw\RawForm;
use Octavox\Core\Failure;

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
    public function around(string $path, ?RawForm $stated, int $number, SoundForm $form, OutputFormat $format, int $from, int $until): ?KeptCut;
}
