<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Pcm;

use Octavox\Core\Codec\Encoder;
use Octavox\Core\Codec\Joining;
use Octavox\Core\Codec\Packet;
use Octavox\Core\Codec\SoundForm;
use Octavox\Core\Sound\Block;

/** Samples stand beside each other. */
final class PcmJoining implements Joining
{
    public function __construct(private readonly SoundForm $form)
    {
    }

    public function encoder(): Encoder
    {
        return new PcmEncoder($this->form);
    }

    public function step(): int
    {
        return 1;
    }

    public function hearsAll(): bool
    {
        return false;
    }

    public function knowsItsPlace(): bool
    {
        return true;
    }

    public function hear(Block $block): void
    {
    }

    public function packet(Packet $packet, int $seam): Packet
    {
        return new Packet($packet->data, $packet->start + $seam, $packet->length);
    }

    public function later(SoundForm $form): SoundForm
    {
        return $form;
    }

    public function form(SoundForm $earlier, SoundForm $later, int $samples): SoundForm
    {
        return $earlier;
    }
}
