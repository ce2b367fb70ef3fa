<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Speex;

use Octavox\Core\Codec\CodecNotDecodable;
use Octavox\Core\Codec\Mending;
use Octavox\Core\Codec\MendsPackets;
use Octavox\Core\Codec\Native\QuietErrors;
use Octavox\Core\Codec\Native\SpeexLibrary;
use Octavox\Core\Codec\PacketUndecodable;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Packet;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\BlockTooLarge;
use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Sound\Native\LibraryMissing;

/** Speex packets → sound. A damaged packet becomes silence of its length. */
final class SpeexDecoder implements Mending
{
    use MendsPackets;

    private readonly SpeexLibrary $library;

    private readonly FloatBuffer $room;

    /**
     * @throws CodecNotDecodable
     * @throws BlockTooLarge
     * @throws LibraryMissing
     */
    public function __construct(private readonly AudioFormat $audio)
    {
        $header = SpeexHeader::parse($audio->config) ?? throw CodecNotDecodable::of($audio);
        $this->library = new SpeexLibrary($header->mode, $header->channels, $header->perPacket, $header->frame);
        $this->room = new FloatBuffer($audio->frameLength * $audio->channels());
    }

    /**
     * @throws LibraryMissing
     * @throws PacketUndecodable
     */
    public function decode(Packet $packet): Block
    {
        $frames = QuietErrors::during(fn (): int => $this->library->decode($packet->data, $this->room));
        $frames === $this->audio->frameLength ? $this->understood()
            : $this->mend(Codec::Speex, $packet, $this->audio->rate, 'the packet is not understood');
        $this->room->silence($frames * $this->audio->channels(), ($this->audio->frameLength - $frames) * $this->audio->channels());

        return new Block($this->room, $this->audio->frameLength, $this->audio->channels());
    }

    public function finish(): ?Block
    {
        return null;
    }
}
