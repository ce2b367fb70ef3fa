<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Flac;

use Octavox\Core\Codec\CodecNotDecodable;
use Octavox\Core\Codec\Mending;
use Octavox\Core\Codec\MendsPackets;
use Octavox\Core\Codec\Native\FlacDecoding;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Packet;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\BlockTooLarge;
use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Sound\Native\LibraryMissing;

/**
 * FLAC frames → sound, bit for bit. A damaged frame becomes silence of its length, which is told of: sound that must be exact is never
 * guessed.
 */
final class FlacDecoder implements Mending
{
    use MendsPackets;

    private readonly FlacDecoding $library;

    private readonly FloatBuffer $room;

    /**
     * @throws CodecNotDecodable
     * @throws BlockTooLarge
     * @throws LibraryMissing
     */
    public function __construct(private readonly AudioFormat $audio)
    {
        $info = StreamInfo::parse($audio->config) ?? throw CodecNotDecodable::of($audio);
        $this->library = new FlacDecoding($info->bytes, $info->channels);
        $this->room = new FloatBuffer($info->largestBlock * $info->channels);
    }

    public function decode(Packet $packet): Block
    {
        $complaint = $this->library->decode($packet->data, $this->room, 0);
        if ($complaint === '') {
            $this->understood();

            return new Block($this->room, $this->library->frames(), $this->audio->channels());
        }
        $this->mend(Codec::Flac, $packet, $this->audio->rate, $complaint);
        $frames = min($packet->length, intdiv($this->room->capacity, $this->audio->channels()));
        $this->room->silence(0, $frames * $this->audio->channels());

        return new Block($this->room, $frames, $this->audio->channels());
    }

    public function finish(): ?Block
    {
        return null;
    }
}
