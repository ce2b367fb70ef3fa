<?php

declare(strict_types=1);

namespace Octavox\Core\Codec;

use Octavox\Core\Media\AudioFormat;

/** For codecs whose packets are all equally long, and for PCM, where the bytes tell. */
final readonly class SteadyLength implements PacketLength
{
    public function __construct(private AudioFormat $audio) {}

    public function samples(string $packet): int
    {
        return $this->audio->pcm === null ? $this->audio->frameLength : intdiv(strlen($packet), max(1, $this->audio->frameBytes()));
    }
}
