<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Aac;

use Octavox\Core\Codec\Encoder;
use Octavox\Core\Codec\EncoderRefused;
use Octavox\Core\Codec\Native\VoAac;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Packet;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\Native\FloatBuffer;

/** Sound → AAC-LC access units of 1024 frames; mono or stereo. */
final class AacEncoder implements Encoder
{
    private const FRAME = 1024;

    /** Measured: the sound comes back this many samples later, 576 of look-ahead after one frame of overlap. */
    private const DELAY = 1600;

    private readonly VoAac $library;

    private readonly FloatBuffer $room;

    private readonly AudioFormat $form;

    private int $held = 0;

    private int $frames = 0;

    private int $units = 0;

    public function __construct(AudioFormat $form, RateControl $setting)
    {
        $this->library = new VoAac($form->rate, $form->channels(), $setting->kbps);
        if ($form->channels() > 2 || ! $this->library->isReady()) {
            throw EncoderRefused::form(Codec::Aac, $form->rate, $form->channels());
        }
        $this->form = AudioSpecificConfig::lowComplexity($form->rate, $form->channels())->form();
        $this->room = new FloatBuffer(self::FRAME * $form->channels());
    }

    public function form(): AudioFormat
    {
        return $this->form;
    }

    public function delay(): int
    {
        return self::DELAY;
    }

    public function maker(): string
    {
        return 'VisualOn AAC';
    }

    public function encode(Block $block): iterable
    {
        $this->frames += $block->frames;
        $channels = $this->form->channels();
        for ($from = 0; $from < $block->frames; $from += $count) {
            $count = min(self::FRAME - $this->held, $block->frames - $from);
            $this->room->copy($this->held * $channels, $block->buffer, $block->first() + $from * $channels, $count * $channels);
            $this->held += $count;
            if ($this->held === self::FRAME) {
                yield $this->unit();
            }
        }
    }

    public function finish(): iterable
    {
        while ($this->units * self::FRAME < $this->frames + self::DELAY) {
            $this->room->silence($this->held * $this->form->channels(), (self::FRAME - $this->held) * $this->form->channels());
            yield $this->unit();
        }
    }

    private function unit(): Packet
    {
        $this->held = 0;
        $data = $this->library->encode($this->room, 0);
        if ($data === '') {
            throw EncoderRefused::failed(Codec::Aac, -1);
        }

        return new Packet($data, self::FRAME * $this->units++, self::FRAME);
    }
}
