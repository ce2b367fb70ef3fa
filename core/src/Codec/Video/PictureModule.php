<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Video;

use Octavox\Core\Codec\CodecModule;
use Octavox\Core\Media\Codec;

/** Of pictures, which are copied and never decoded. */
final class PictureModule extends CodecModule
{
    /** @param  bool  $isStreamed  whether its pictures can be copied out of program and transport streams */
    public function __construct(Codec $codec, private readonly string $label, public readonly bool $isStreamed = false)
    {
        parent::__construct($codec);
    }

    public function label(): string
    {
        return $this->label;
    }

    public function isSound(): bool
    {
        return false;
    }

    public function isDecoded(): bool
    {
        return false;
    }
}
