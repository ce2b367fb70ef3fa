<?php

declare(strict_types=1);

namespace Octavox\Core\Codec;

/** Packets that do not tell where they stood. */
final class PlainCutting implements Cutting
{
    public function form(SoundForm $form, int $samples): SoundForm
    {
        return $form;
    }

    public function packet(Packet $packet): Packet
    {
        return $packet;
    }
}
