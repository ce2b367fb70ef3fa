<?php

declare(strict_types=1);

namespace Octavox\Core\Sound;

use Octavox\Core\Sound\Native\FloatBuffer;

/** Measures sound whose channels stand apart. */
interface PlanarMeter
{
    /**
     * @param  list<FloatBuffer>  $channels  each with at least $frames samples, silence up to the next multiple of {@see
     *          BlockFilter::step()}
     * @param  int  $frames  a multiple of that step in every call but the last
     */
    public function take(array $channels, int $frames): void;
}
