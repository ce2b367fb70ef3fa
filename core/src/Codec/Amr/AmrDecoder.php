<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Amr;

use Octavox\Core\Codec\Mending;
use Octavox\Core\Codec\MendsPackets;
use Octavox\Core\Codec\Native\AmrLibrary;
use Octavox\Core\Codec\PacketUndecodable;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Packet;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\BlockTooLarge;
use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Sound\Native\LibraryMissing;

/** AMR frames → sound; a packet may hold several, as in MP4. */
final class AmrDecoder implements Mending
{
    use MendsPackets;

    private const MOST_FRAMES = 64;

    private readonly AmrFrameParser $framing;

    private readonly AmrLibrary $library;

    private readonly FloatBuffer $room;

    /**
     * @throws BlockTooLarge
     * @throws LibraryMissing
     */
    public function __construct(private readonly AudioFormat $audio)
    {
        $wide = $audio->codec === Codec::AmrWide;
        $this->framing = new AmrFrameParser($wide);
        $this->library = new AmrLibrary($wide);
        $this->room = new FloatBuffer(self::MOST_FRAMES * ($wide ? 320 : 160));
    }

    /**
     * @throws LibraryMissing
     * @throws PacketUndecodable
     */
    public function decode(Packet $packet): ?Block
    {
        $each = $this->audio->codec === Codec::AmrWide ? 320 : 160;
        $given = 0;
        for ($at = 0, $end = strlen($packet->data); $at < $end && $given < self::MOST_FRAMES * $each; $at += $facts->bytes) {
            $facts = $this->framing->at($packet->data[$at]);
            if ($facts === null || $at + $facts->bytes > $end) {
                $this->mend($this->audio->codec, $packet, $this->audio->rate, 'a frame of a kind that does not exist');
                $missing = max(0, min(self::MOST_FRAMES * $each, $packet->length) - $given);
                $this->room->silence($given, $missing);
                $given += $missing;
                break;
            }
            $this->understood();
            $this->library->decode(substr($packet->data, $at, $facts->bytes), $this->room, $given);
            $given += $each;
        }

        return $given === 0 ? null : new Block($this->room, $given, 1);
    }

    public function finish(): ?Block
    {
        return null;
    }
}
