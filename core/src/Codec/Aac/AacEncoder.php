<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Aac;

use Octavox\Core\Codec\Encoder;
use Octavox\Core\Codec\EncoderRefused;
use Octavox\Core\Codec\FrameRoom;
use Octavox\Core\Codec\Native\VoAac;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Failure;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Packet;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\Native\LibraryMissing;

/** Sound → AAC-LC access units of 1024 frames; mono or stereo. */
final class AacEncoder implements Encoder
{
    private const FRAME = 1024;

    private readonly VoAac $library;

    private readonly FrameRoom $room;

    private readonly AudioFormat $audio;

    private int $frames = 0;

    private int $units = 0;

    /**
     * @throws Failure
     */
    public function __construct(AudioFormat $audio, RateControl $rateControl)
    {
        $this->library = new VoAac($audio->rate, $audio->channels(), $rateControl->kbps);
        if ($audio->channels() > 2 || ! $this->library->isReady()) {
            throw EncoderRefused::audio(Codec::Aac, $audio->rate, $audio->channels());
        }
        $this->audio = AudioSpecificConfig::lowComplexity($audio->rate, $audio->channels())->audio();
        $this->room = new FrameRoom(self::FRAME, $audio->channels());
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

    /**
     * @throws EncoderRefused
     * @throws LibraryMissing
     */
    public function encode(Block $block): iterable
    {
        $this->frames += $block->frames;
        foreach ($this->room->take($block) as $full) {
            yield $this->unit();
        }
    }

    /**
     * @throws EncoderRefused
     * @throws LibraryMissing
     */
    public function finish(): iterable
    {
        while ($this->units * self::FRAME < $this->frames + AacDelay::ENCODER) {
            $this->room->fill();
            yield $this->unit();
        }
    }

    /**
     * @throws EncoderRefused
     * @throws LibraryMissing
     */
    private function unit(): Packet
    {
        $data = $this->library->encode($this->room->buffer, 0);
        if ($data === '') {
            throw EncoderRefused::failed(Codec::Aac, -1);
        }

        return new Packet($data, self::FRAME * $this->units++, self::FRAME);
    }
}
