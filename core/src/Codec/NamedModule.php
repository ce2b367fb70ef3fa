<?php

declare(strict_types=1);

namespace Octavox\Core\Codec;

use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;

/** Of sound that has a name here and no decoder. */
final class NamedModule extends CodecModule
{
    /**
     * @param  ?bool  $isConstant  {@see CodecModule::hasConstantRate()}
     * @param  int  $need  {@see CodecModule::need()}
     * @param  bool  $isKept  whether a container here holds its packets as they are
     */
    public function __construct(Codec $codec, private readonly string $label, private readonly bool $isLossless = false,
        private readonly ?bool $isConstant = null, private readonly int $need = 100, public readonly bool $isKept = false)
    {
        parent::__construct($codec);
    }

    public function label(): string
    {
        return $this->label;
    }

    public function isSound(): bool
    {
        return $this->codec !== Codec::Unknown;
    }

    public function isLossless(): bool
    {
        return $this->isLossless;
    }

    public function hasConstantRate(): ?bool
    {
        return $this->isConstant;
    }

    public function need(AudioFormat $audio): int
    {
        return $this->need;
    }

    public function isDecoded(): bool
    {
        return false;
    }
}
