<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Vorbis;

use Octavox\Core\Codec\Codec;
use Octavox\Core\Codec\CodecNotDecodable;
use Octavox\Core\Codec\Decoder;
use Octavox\Core\Codec\Native\VorbisDecoding;
use Octavox\Core\Codec\Packet;
use Octavox\Core\Codec\PacketUndecodable;
use Octavox\Core\Codec\SoundForm;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\Native\FloatBuffer;

/** Vorbis packets → sound, several packets a block; the first packet gives none. */
final class VorbisDecoder implements Decoder
{
    private const TOGETHER = 8192;

    /** Vorbis I specification, 4.2.2: the longest block has 8,192 samples. */
    private const LONGEST = 8192;

    private const MOST_DAMAGED = 50;

    private readonly VorbisDecoding $library;

    private readonly FloatBuffer $room;

    private int $held = 0;

    private int $damaged = 0;

    public function __construct(private readonly SoundForm $form)
    {
        $headers = VorbisHeaders::parse($form->config) ?? throw CodecNotDecodable::named($form->label());
        $this->library = new VorbisDecoding([$headers->identification, $headers->comment, $headers->setup], $form->channels());
        if (! $this->library->isReady() || $headers->channels() !== $form->channels()) {
            throw PacketUndecodable::at(Codec::Vorbis, 0, $form->rate, 'its set-up is not understood');
        }
        $this->room = new FloatBuffer((self::TOGETHER + self::LONGEST) * $form->channels());
    }

    public function decode(Packet $packet): ?Block
    {
        if ($this->library->take($packet->data)) {
            $this->damaged = 0;
            $this->held += $this->library->give($this->room, $this->held);
        } elseif (++$this->damaged >= self::MOST_DAMAGED) {
            throw PacketUndecodable::at(Codec::Vorbis, $packet->start, $this->form->rate, 'the packet is not understood');
        } else {
            $silence = min(self::LONGEST, $packet->length);
            $this->room->silence($this->held * $this->form->channels(), $silence * $this->form->channels());
            $this->held += $silence;
        }

        return $this->held >= self::TOGETHER ? $this->finish() : null;
    }

    public function finish(): ?Block
    {
        $frames = $this->held;
        $this->held = 0;

        return $frames === 0 ? null : new Block($this->room, $frames, $this->form->channels());
    }
}
