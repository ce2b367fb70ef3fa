<?php

declare(strict_types=1);

namespace Octavox\Core\Codec;

/** What an encoder can be told besides its bit rate; every part that is null is left to the encoder's own usual choice. */
final readonly class EncoderSettings
{
    /**
     * @param  ?bool  $checksums  whether frames carry sums by which a decoder notices damage
     * @param  ?int  $compression  level of the codec's own scale: more is smaller and slower
     */
    public function __construct(public ?StereoCoding $stereo = null, public ?bool $checksums = null, public ?int $compression = null) {}

    /** @return array<string, bool|int|string> only what is said */
    public function toArray(): array
    {
        return array_filter(['stereo' => $this->stereo?->value, 'checksums' => $this->checksums, 'compression' => $this->compression],
            fn (mixed $value): bool => $value !== null);
    }
}
