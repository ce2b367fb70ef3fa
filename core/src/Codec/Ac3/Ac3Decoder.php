<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Ac3;

use Octavox\Core\Codec\Mending;
use Octavox\Core\Codec\MendsPackets;
use Octavox\Core\Codec\Native\A52Library;
use Octavox\Core\Codec\PacketUndecodable;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Packet;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\BlockTooLarge;
use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Sound\Native\LibraryMissing;

/** AC-3 frames → sound, four frames a block. A damaged frame becomes silence of its length. */
final class Ac3Decoder implements Mending
{
    use MendsPackets;

    private const FRAME = 1536;

    private const TOGETHER = 4;

    private readonly A52Library $library;

    private readonly FloatBuffer $room;

    private int $held = 0;

    /**
     * @throws BlockTooLarge
     * @throws LibraryMissing
     */
    public function __construct(private readonly AudioFormat $audio)
    {
        $this->library = new A52Library;
        $this->room = new FloatBuffer(self::TOGETHER * self::FRAME * max(6, $audio->channels()));
    }

    /**
     * @throws LibraryMissing
     * @throws PacketUndecodable
     */
    public function decode(Packet $packet): ?Block
    {
        $wanted = self::FRAME * $this->audio->channels();
        if ($this->library->decode($packet->data, $this->room, $this->held * $this->audio->channels()) === $this->audio->channels()) {
            $this->understood();
        } else {
            $this->mend(Codec::Ac3, $packet, $this->audio->rate, 'the frame is not understood');
            $this->room->silence($this->held * $this->audio->channels(), $wanted);
        }
        $this->held += self::FRAME;

        return $this->held >= self::TOGETHER * self::FRAME ? $this->finish() : null;
    }

    public function finish(): ?Block
    {
        $frames = $this->held;
        $this->held = 0;

        return $frames === 0 ? null : new Block($this->room, $frames, $this->audio->channels());
    }
}
