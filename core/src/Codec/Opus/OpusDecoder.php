<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Opus;

use Octavox\Core\Codec\CodecNotDecodable;
use Octavox\Core\Codec\Mending;
use Octavox\Core\Codec\MendsPackets;
use Octavox\Core\Codec\Native\OpusLibrary;
use Octavox\Core\Codec\PacketUndecodable;
use Octavox\Core\Failure;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Packet;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\Native\FloatBuffer;

/** Opus packets → sound at 48 kHz, several packets a block. A damaged packet becomes silence of its length. */
final class OpusDecoder implements Mending
{
    use MendsPackets;

    /** Samples a block, after which it is given. */
    private const TOGETHER = 9600;

    /** RFC 6716, 3.2: the longest packet has 120 ms. */
    private const LONGEST = 5760;

    private readonly OpusLibrary $library;

    private readonly FloatBuffer $room;

    private int $held = 0;

    /**
     * @throws Failure
     */
    public function __construct(private readonly AudioFormat $audio)
    {
        $head = OpusHead::parse($audio->config) ?? throw CodecNotDecodable::of($audio);
        $this->library = OpusLibrary::decoder($head->channels, $head->streams, $head->coupled, $head->mapping, $head->gain)
            ?? throw PacketUndecodable::at(Codec::Opus, 0, $audio->rate, 'its set-up is not understood');
        $this->room = new FloatBuffer((self::TOGETHER + self::LONGEST) * $audio->channels());
    }

    public function decode(Packet $packet): ?Block
    {
        $channels = $this->audio->channels();
        $given = $packet->data === '' ? -1 : $this->library->decode($packet->data, $this->room, $this->held * $channels, self::LONGEST);
        if ($given < 0) {
            $this->mend(Codec::Opus, $packet, $this->audio->rate, 'the packet is not understood');
            $given = min(self::LONGEST, $packet->length);
            $this->room->silence($this->held * $channels, $given * $channels);
        } else {
            $this->understood();
        }
        $this->held += $given;

        return $this->held >= self::TOGETHER ? $this->finish() : null;
    }

    public function finish(): ?Block
    {
        $frames = $this->held;
        $this->held = 0;

        return $frames === 0 ? null : new Block($this->room, $frames, $this->audio->channels());
    }
}
