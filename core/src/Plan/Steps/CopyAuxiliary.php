<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Steps;

/** Subtitles or a time code are copied. */
final readonly class CopyAuxiliary implements StepKind
{
    /** @param  string  $auxiliary  `timecode` or `subtitles` */
    public function __construct(
        public string $auxiliary,
        public int $track,
        public string $language,
        public string $container,
        public string $coding,
    ) {}
}
