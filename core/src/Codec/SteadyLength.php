<?php

declare(strict_types=1);

namespace Octavox\Core\Codec;

use Octavox\Core\Media\AudioFormat;

/** For codecs whose packets are all equally long, and for PCM, where the bytes tell. */
final readonly class SteadyLength implements PacketLength
{
    public function __construct(private AudioFormat $form)
    {
    }

    public function of(string $packet): int
    {
        return $this->form->pcm === null ? $this->form->frameLength : intdiv(strlen($packet), max(1, $this->form->frameBytes()));
    }
}
