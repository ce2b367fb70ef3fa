<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Flac;

use Octavox\Core\Codec\Cutting;
use Octavox\Core\Codec\Packet;
use Octavox\Core\Codec\SoundForm;

/** Frames are counted from the first of the cut; what they hold stays as it is, and a damaged one stays known as damaged. */
final class FlacCutting implements Cutting
{
    private ?int $first = null;

    public function form(SoundForm $form, int $samples): SoundForm
    {
        return $form->withConfig(StreamInfo::parse($form->config)?->ofCut($samples) ?? $form->config);
    }

    public function packet(Packet $packet): Packet
    {
        $this->first ??= FrameHeader::parse($packet->data)?->number;

        return FrameHeader::shifted($packet, -($this->first ?? 0));
    }
}
