<?php

declare(strict_types=1);

namespace Octavox\Core\Codec;

use Octavox\Core\Json\Fields;

/** What an encoder can be told besides its bit rate; every part that is null is left to the encoder's own usual choice. */
final readonly class EncoderSettings
{
    /**
     * @param  ?bool  $checksums  whether frames carry sums by which a decoder notices damage
     * @param  ?int  $compression  level of the codec's own scale: more is smaller and slower
     */
    public function __construct(public ?StereoCoding $stereo = null, public ?bool $checksums = null, public ?int $compression = null) {}

    public static function usual(): self
    {
        return new self;
    }

    /** @return array<string, bool|int|string> only what is said */
    public function toArray(): array
    {
        return array_filter(['stereo' => $this->stereo?->value, 'checksums' => $this->checksums, 'compression' => $this->compression],
            fn (mixed $value): bool => $value !== null);
    }

    /** @param  ?Fields  $fields  what {@see self::toArray()} gave; null where nothing was said */
    public static function stored(?Fields $fields): self
    {
        return $fields === null ? self::usual() : new self(
            StereoCoding::tryFrom($fields->isNull('stereo') ? '' : $fields->text('stereo')),
            $fields->isNull('checksums') ? null : $fields->bool('checksums'),
            $fields->isNull('compression') ? null : $fields->number('compression'),
        );
    }
}
