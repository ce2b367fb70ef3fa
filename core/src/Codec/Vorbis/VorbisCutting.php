<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Vorbis;

use Octavox\Core\Codec\Cutting;
use Octavox\Core\Codec\Packet;
use Octavox\Core\Codec\SoundForm;

/** The first packet of Vorbis gives no sound of its own: Vorbis I, 4.3.8. */
final class VorbisCutting implements Cutting
{
    private bool $begun = false;

    public function form(SoundForm $form, int $samples): SoundForm
    {
        return $form;
    }

    public function packet(Packet $packet): Packet
    {
        if ($this->begun) {
            return $packet;
        }
        $this->begun = true;

        return new Packet($packet->data, $packet->start + $packet->length, 0);
    }
}
