<?php

declare(strict_types=1);

namespace Octavox\Core\Sound;

/** How loud sound is. Null where it was never above the absolute gate. */
final readonly class Loudness
{
    /**
     * @param  ?float  $integrated  LUFS, ITU-R BS.1770-4
     * @param  ?float  $range  LU, EBU Tech 3342
     * @param  ?float  $momentary  LUFS, the highest of 400 ms (EBU Tech 3341)
     * @param  ?float  $shortTerm  LUFS, the highest of 3 s (EBU Tech 3341)
     */
    public function __construct(public ?float $integrated, public ?float $range, public ?float $momentary, public ?float $shortTerm) {}
}
