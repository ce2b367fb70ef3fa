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

    private readonly VoAac $library;

    private readonly FloatBuffer $room;

    private readonly AudioFormat $audio;

    private int $held = 0;

    private int $frames = 0;

    private int $units = 0;

    /**
     * @throws EncoderRefused
     */
    public function __construct(AudioFormat $audio, RateControl $setting)
    {
        $this->library = new VoAac($audio->rate, $audio->channels(), $setting->kbps);
        if ($audio->channels() > 2 || ! $this->library->isReady()) {
            throw EncoderRefused::audio(Codec::Aac, $audio->rate, $audio->channels());
        }
        $this->audio = AudioSpecificConfig::lowComplexity($audio->rate, $audio->channels())->audio();
        $this->room = new FloatBuffer(self::FRAME * $audio->channels());
    }

    public function audio(): AudioFormat
    {
        return $this->audio;
    }

    public function delay(): int
    {
        return AacDelay::ENCODER;
    }

    public function maker(): string
    {
        return 'VisualOn AAC';
    }

    public function encode(Block $block): iterable
    {
        $this->frames += $block->frames;
        $channels = $this->audio->channels();
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
        while ($this->units * self::FRAME < $this->frames + AacDelay::ENCODER) {
            $this->room->silence($this->held * $this->audio->channels(), (self::FRAME - $this->held) * $this->audio->channels());
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
