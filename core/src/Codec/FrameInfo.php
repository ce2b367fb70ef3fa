<?php

declare(strict_types=1);

namespace Octavox\Core\Codec;

/** Length of one frame, and what frames of the same stream share. */
final readonly class FrameInfo
{
    /**
     * @param  int  $bytes  of the whole frame
     * @param  int  $samples  a channel that it decodes to
     * @param  string  $identity  equal in every frame of one stream
     */
    public function __construct(public int $bytes, public int $samples, public string $identity) {}
}
