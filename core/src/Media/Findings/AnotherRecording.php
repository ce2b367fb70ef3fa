<?php

declare(strict_types=1);

namespace Octavox\Core\Media\Findings;

/** Behind the recording that is read stands another one. */
final readonly class AnotherRecording implements FindingKind
{
    /** @param  int  $at  byte */
    public function __construct(public int $at, public string $what = 'another recording') {}
}
