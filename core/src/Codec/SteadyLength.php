<?php

declare(strict_types=1);

namespace Octavox\Core\Codec;

/** For codecs whose packets are all equally long, and for PCM, where the bytes tell. */
final readonly class SteadyLength implements PacketLength
{
    public function __construct(private SoundForm $form)
    {
    }

    public function of(string $packet): int
    {
        return $this->form->pcm === null ? $this->form->frameLength : intdiv(strlen($packet), max(1, $this->form->frameBytes()));
    }
}
