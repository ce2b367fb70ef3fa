<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Analysis\Analyzer;
use Octavox\Core\Analysis\Measurements;
use Octavox\Core\Codec\Codecs;
use Octavox\Core\Destination\Destination;
use Octavox\Core\Destination\Fit;
use Octavox\Core\Destination\LeastChange;
use Octavox\Core\Failure;
use Octavox\Core\Order\OutputSpec;
use Octavox\Core\Reading\Opener;
use Octavox\Core\Reading\Reading;

/** Finds how a source stands to a destination in this process: measures its loudness where the destination looks at that. */
final class FitInspector
{
    /**
     * @param  ?Measurements  $measured  of its first sound, where that is known already
     * @param  OutputSpec  $asked  what somebody wants besides
     *
     * @throws Failure where the sound cannot be decoded for that
     */
    public static function inspect(Reading $source, Destination $destination, ?Measurements $measured = null,
        OutputSpec $asked = new OutputSpec): Fit
    {
        $sound = $source->sound()[0] ?? null;
        $isHeard = $measured === null && $destination->limits->mostLufs !== null && $sound?->sound !== null
            && Codecs::canDecode($sound->sound);
        if (! $isHeard) {
            return (new LeastChange($destination, $measured, $asked))->fit($source);
        }
        $opened = Opener::open($source->path, $source->stated);

        return (new LeastChange($destination, Analyzer::to($opened, $opened->sound()[0]), $asked))->fit($source);
    }
}
