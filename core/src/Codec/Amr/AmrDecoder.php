<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Amr;

use Octavox\Core\Codec\Codec;
use Octavox\Core\Codec\Decoder;
use Octavox\Core\Codec\Native\AmrLibrary;
use Octavox\Core\Codec\Packet;
use Octavox\Core\Codec\PacketUndecodable;
use Octavox\Core\Codec\SoundForm;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\Native\FloatBuffer;

/** AMR frames → sound; a packet may hold several, as in MP4. */
final class AmrDecoder implements Decoder
{
    private const MOST_FRAMES = 64;

    private readonly AmrFraming $framing;

    private readonly AmrLibrary $library;

    private readonly FloatBuffer $room;

    public function __construct(private readonly SoundForm $form)
    {
        $wide = $form->codec === Codec::AmrWide;
        $this->framing = new AmrFraming($wide);
        $this->library = new AmrLibrary($wide);
        $this->room = new FloatBuffer(self::MOST_FRAMES * ($wide ? 320 : 160));
    }

    public function decode(Packet $packet): ?Block
    {
        $each = $this->form->codec === Codec::AmrWide ? 320 : 160;
        $given = 0;
        for ($at = 0, $end = strlen($packet->data); $at < $end && $given < self::MOST_FRAMES * $each; $at += $facts->bytes) {
            $facts = $this->framing->at($packet->data[$at]);
            if ($facts === null || $at + $facts->bytes > $end) {
                throw PacketUndecodable::at($this->form->codec, $packet->start + $given, $this->form->rate, 'a frame of a kind that does not exist');
            }
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
