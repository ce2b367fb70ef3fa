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

/**
 * Sound of three to eight channels → AAC-LC access units of 1024 frames. The library encodes one channel or two, so each element has an
 * encoder of its own, and what they give for a frame is put together to one unit.
 */
final class SurroundAacEncoder implements Encoder
{
    private const FRAME = 1024;

    /** Frames that are encoded together: the filter of low frequencies goes in steps of 2,048 samples. */
    private const TOGETHER = 2;

    /** What low frequencies get of the bit rate, in kbit/s, and the share that they never get more of. */
    private const LOW_KBPS = 16;

    private const LOW_SHARE = 16;

    /** @var non-empty-list<AacPart> */
    private readonly array $parts;

    private readonly FrameRoom $room;

    private readonly AudioFormat $audio;

    /** Frames by which low frequencies are taken earlier, for their filter holds them back. */
    private readonly int $lag;

    private int $frames = 0;

    private int $units = 0;

    /**
     * @throws Failure
     */
    public function __construct(AudioFormat $audio, RateControl $rateControl)
    {
        $channels = $audio->channels();
        $configuration = AacLayouts::configuration($channels);
        $elements = AacLayouts::elements($channels);
        if ($configuration === null || $elements === []) {
            throw EncoderRefused::audio(Codec::Aac, $audio->rate, $channels);
        }
        $low = in_array(0, $elements, true) ? max(8, min(self::LOW_KBPS, intdiv($rateControl->kbps, self::LOW_SHARE))) : 0;
        $each = intdiv($rateControl->kbps - $low, array_sum($elements));
        $coded = AacLayouts::layout($channels);
        $places = $audio->layout->placesOf($coded) ?? throw EncoderRefused::audio(Codec::Aac, $audio->rate, $channels);
        $parts = $tags = [];
        $first = 0;
        foreach ($elements as $width) {
            $kind = [RawBlock::LOW, RawBlock::SINGLE, RawBlock::PAIR][$width];
            $library = new VoAac($audio->rate, max(1, $width), $width === 0 ? $low : $each * $width);
            if (! $library->isReady()) {
                throw EncoderRefused::audio(Codec::Aac, $audio->rate, $channels);
            }
            $parts[] = new AacPart($library, $kind, $tags[$kind] = ($tags[$kind] ?? -1) + 1,
                [$places[$first], ...array_slice($places, $first + 1, max(0, $width - 1))],
                $width === 0 ? $audio->rate : null, self::TOGETHER * self::FRAME);
            $first += max(1, $width);
        }
        $this->parts = $parts;
        $this->audio = AudioSpecificConfig::lowComplexity($audio->rate, $configuration)->audio();

        $this->lag = in_array(0, $elements, true) ? AacDelay::lag($audio->rate) : 0;
        $this->room = new FrameRoom(self::TOGETHER * self::FRAME, $channels, $this->lag);
    }

    public function audio(): AudioFormat
    {
        return $this->audio;
    }

    public function delay(): int
    {
        return AacDelay::ENCODER + $this->lag;
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
            yield from $this->together();
        }
    }

    /**
     * @throws EncoderRefused
     * @throws LibraryMissing
     */
    public function finish(): iterable
    {
        while ($this->units * self::FRAME < $this->frames + $this->delay()) {
            $this->room->fill();
            foreach ($this->together() as $packet) {
                if ($packet->start < $this->frames + $this->delay()) {
                    yield $packet;
                }
            }
        }
    }

    /**
     * @return iterable<Packet>
     *
     * @throws EncoderRefused
     * @throws LibraryMissing
     */
    private function together(): iterable
    {
        $buffer = $this->room->buffer;
        $channels = $this->audio->channels();
        foreach ($this->parts as $part) {
            $part->take($buffer, $channels, $this->lag);
        }
        $buffer->copy(0, $buffer, self::TOGETHER * self::FRAME * $channels, $this->lag * $channels);
        for ($frame = 0; $frame < self::TOGETHER; $frame++) {
            $block = new RawBlock;
            foreach ($this->parts as $part) {
                $unit = $part->encode($frame);
                if ($unit === '') {
                    throw EncoderRefused::failed(Codec::Aac, -1);
                }
                $block->add($unit, $part->element, $part->tag);
            }
            yield new Packet($block->finish(), self::FRAME * $this->units++, self::FRAME);
        }
    }
}
