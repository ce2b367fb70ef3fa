<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Dts;

use Octavox\Core\Codec\Mending;
use Octavox\Core\Codec\MendsPackets;
use Octavox\Core\Codec\Native\DcaLibrary;
use Octavox\Core\Codec\PacketUndecodable;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Packet;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\BlockTooLarge;
use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Sound\Native\LibraryMissing;

/** DTS core frames → sound. A damaged frame becomes silence of its length. */
final class DtsDecoder implements Mending
{
    use MendsPackets;

    /** Samples that are gathered before a block is given. */
    private const TOGETHER = 8192;

    private readonly DcaLibrary $library;

    private FloatBuffer $room;

    private int $held = 0;

    /**
     * @throws BlockTooLarge
     * @throws LibraryMissing
     */
    public function __construct(private readonly AudioFormat $audio)
    {
        $this->library = new DcaLibrary;
        $this->room = new FloatBuffer(2 * self::TOGETHER * $audio->channels());
    }

    /** Whether the library knows the arrangement of channels: up to five, and low frequencies. */
    public static function knows(AudioFormat $audio): bool
    {
        return $audio->channels() <= 6 && $audio->layout->isPlaced();
    }

    /**
     * @throws LibraryMissing
     * @throws PacketUndecodable
     */
    public function decode(Packet $packet): ?Block
    {
        $channels = $this->audio->channels();
        $length = min($packet->length, self::TOGETHER);
        $done = $this->library->decode($packet->data, $channels, $this->room, $this->held * $channels);
        if ($done === 0) {
            $this->mend(Codec::Dts, $packet, $this->audio->rate, 'the frame is not understood');
        } else {
            $this->understood();
        }
        // A frame at the end may hold fewer samples than whole blocks have.
        if ($done < $length) {
            $this->room->silence(($this->held + $done) * $channels, ($length - $done) * $channels);
        }
        $this->held += $length;

        return $this->held >= self::TOGETHER ? $this->finish() : null;
    }

    public function finish(): ?Block
    {
        $frames = $this->held;
        $this->held = 0;

        return $frames === 0 ? null : new Block($this->room, $frames, $this->audio->channels());
    }
}
