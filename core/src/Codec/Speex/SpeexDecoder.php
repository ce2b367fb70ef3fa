<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Speex;

use Octavox\Core\Codec\CodecNotDecodable;
use Octavox\Core\Codec\Mending;
use Octavox\Core\Codec\MendsPackets;
use Octavox\Core\Codec\Native\SpeexLibrary;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Packet;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\Native\FloatBuffer;

/** Speex packets → sound. A damaged packet becomes silence of its length. */
final class SpeexDecoder implements Mending
{
    use MendsPackets;

    private readonly SpeexLibrary $library;

    private readonly FloatBuffer $room;

    public function __construct(private readonly AudioFormat $form)
    {
        $header = SpeexHeader::parse($form->config) ?? throw CodecNotDecodable::of($form);
        $this->library = new SpeexLibrary($header->mode, $header->channels, $header->perPacket, $header->frame);
        $this->room = new FloatBuffer($form->frameLength * $form->channels());
    }

    public function decode(Packet $packet): Block
    {
        $frames = $this->library->decode($packet->data, $this->room);
        $frames === $this->form->frameLength ? $this->understood() : $this->mend(Codec::Speex, $packet, $this->form->rate, 'the packet is not understood');
        $this->room->silence($frames * $this->form->channels(), ($this->form->frameLength - $frames) * $this->form->channels());

        return new Block($this->room, $this->form->frameLength, $this->form->channels());
    }

    public function finish(): ?Block
    {
        return null;
    }
}
