<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\WavPack;

use Octavox\Core\Codec\Mending;
use Octavox\Core\Codec\MendsPackets;
use Octavox\Core\Codec\Native\WavPackDecoding;
use Octavox\Core\Codec\PacketUndecodable;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Packet;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\BlockTooLarge;
use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Sound\Native\LibraryMissing;

/** WavPack → sound, bit for bit; a packet is the blocks of all channels of one stretch. */
final class WavPackDecoder implements Mending
{
    use MendsPackets;

    private readonly WavPackDecoding $library;

    private ?FloatBuffer $room = null;

    /** @throws LibraryMissing */
    public function __construct(private readonly AudioFormat $audio)
    {
        $this->library = new WavPackDecoding($audio->channels(), $audio->bitDepth, str_contains($audio->variant, 'float'));
    }

    /**
     * @throws BlockTooLarge
     * @throws LibraryMissing
     * @throws PacketUndecodable
     */
    public function decode(Packet $packet): ?Block
    {
        if ($packet->length === 0) {
            return null;
        }
        $room = $this->room;
        if ($room === null || $room->capacity < $packet->length * $this->audio->channels()) {
            $room = $this->room = new FloatBuffer($packet->length * $this->audio->channels());
        }
        if ($this->library->decode($packet->data, $packet->length, $room) !== $packet->length) {
            $this->mend(Codec::WavPack, $packet, $this->audio->rate, 'its blocks are not understood');
            $room->silence(0, $packet->length * $this->audio->channels());
        } else {
            $this->understood();
        }

        return new Block($room, $packet->length, $this->audio->channels());
    }

    public function finish(): ?Block
    {
        return null;
    }
}
