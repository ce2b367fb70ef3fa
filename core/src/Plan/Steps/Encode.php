<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Steps;

/** The sound is encoded. */
final readonly class Encode implements StepKind
{
    /**
     * @param  ?int  $quality  of a variable rate
     * @param  ?string  $mode  {@see \Octavox\Core\Codec\RateMode}
     * @param  ?string  $stereo  {@see \Octavox\Core\Codec\StereoCoding}
     */
    public function __construct(
        public string $format,
        public ?bool $lossless = null,
        public ?int $quality = null,
        public ?int $kbps = null,
        public ?string $mode = null,
        public ?string $stereo = null,
        public ?bool $checksums = null,
        public ?int $compression = null,
    ) {}
}
