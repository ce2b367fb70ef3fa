<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Vorbis;

use Octavox\Core\Codec\CodecNotDecodable;
use Octavox\Core\Codec\Mending;
use Octavox\Core\Codec\MendsPackets;
use Octavox\Core\Codec\Native\VorbisDecoding;
use Octavox\Core\Codec\PacketUndecodable;
use Octavox\Core\Failure;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Packet;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Sound\Native\LibraryMissing;

/** Vorbis packets → sound, several packets a block; the first packet gives none. */
final class VorbisDecoder implements Mending
{
    use MendsPackets;

    private const TOGETHER = 8192;

    /** Vorbis I specification, 4.2.2: the longest block has 8,192 samples. */
    private const LONGEST = 8192;

    private readonly VorbisDecoding $library;

    private readonly FloatBuffer $room;

    private int $held = 0;

    /**
     * @throws Failure
     */
    public function __construct(private readonly AudioFormat $audio)
    {
        $headers = VorbisHeaders::parse($audio->config) ?? throw CodecNotDecodable::of($audio);
        $this->library = new VorbisDecoding([$headers->identification, $headers->comment, $headers->setup], $audio->channels());
        if (! $this->library->isReady() || $headers->channels() !== $audio->channels()) {
            throw PacketUndecodable::at(Codec::Vorbis, 0, $audio->rate, 'its set-up is not understood');
        }
        $this->room = new FloatBuffer((self::TOGETHER + self::LONGEST) * $audio->channels());
    }

    /**
     * @throws LibraryMissing
     * @throws PacketUndecodable
     */
    public function decode(Packet $packet): ?Block
    {
        if ($this->library->take($packet->data)) {
            $this->understood();
            $this->held += $this->library->give($this->room, $this->held);
        } else {
            $this->mend(Codec::Vorbis, $packet, $this->audio->rate, 'the packet is not understood');
            $silence = min(self::LONGEST, $packet->length);
            $this->room->silence($this->held * $this->audio->channels(), $silence * $this->audio->channels());
            $this->held += $silence;
        }

        return $this->held >= self::TOGETHER ? $this->finish() : null;
    }

    public function finish(): ?Block
    {
        $frames = $this->held;
        $this->held = 0;

        return $frames === 0 ? null : new Block($this->room, $frames, $this->audio->channels());
    }
}
