<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Opus;

use Octavox\Core\Codec\Encoder;
use Octavox\Core\Codec\EncoderRefused;
use Octavox\Core\Codec\Native\OpusLibrary;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Packet;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\BlockTooLarge;
use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Sound\Native\LibraryMissing;

/** Sound at 48 kHz → Opus packets of 20 ms; up to eight channels in the order of Vorbis. */
final class OpusEncoder implements Encoder
{
    public const FRAME = 960;

    private readonly OpusLibrary $library;

    private readonly OpusHead $head;

    private readonly FloatBuffer $room;

    private int $held = 0;

    private int $frames = 0;

    private int $packets = 0;

    /**
     * @throws EncoderRefused
     * @throws BlockTooLarge
     * @throws LibraryMissing
     */
    public function __construct(private readonly AudioFormat $audio, RateControl $rateControl)
    {
        $channels = $audio->channels();
        $streams = 0;
        $coupled = 0;
        $mapping = '';
        $family = $channels > 2 ? 1 : 0;
        $library = $audio->rate === OpusHead::RATE && $channels <= 8
            ? OpusLibrary::encoder($channels, $family, $rateControl, $streams, $coupled, $mapping) : null;
        $this->library = $library ?? throw EncoderRefused::audio(Codec::Opus, $audio->rate, $channels);
        $this->head = OpusHead::of($channels, $this->library->lookahead(), OpusHead::RATE, $family, $streams, $coupled, $mapping);
        $this->room = new FloatBuffer(self::FRAME * $channels);
    }

    public function audio(): AudioFormat
    {
        return $this->audio->withConfig($this->head->bytes());
    }

    public function delay(): int
    {
        return $this->head->skip;
    }

    /** @throws LibraryMissing */
    public function maker(): string
    {
        return OpusLibrary::version();
    }

    /** @throws EncoderRefused */
    public function encode(Block $block): iterable
    {
        $this->frames += $block->frames;
        $channels = $this->audio->channels();
        $from = 0;
        if ($this->held === 0) {
            // Whole packets need no copy.
            for (; $block->frames - $from >= self::FRAME; $from += self::FRAME) {
                yield $this->packet($block->buffer, $block->first() + $from * $channels);
            }
        }
        for (; $from < $block->frames; $from += $count) {
            $count = min(self::FRAME - $this->held, $block->frames - $from);
            $this->room->copy($this->held * $channels, $block->buffer, $block->first() + $from * $channels, $count * $channels);
            $this->held += $count;
            if ($this->held === self::FRAME) {
                $this->held = 0;
                yield $this->packet($this->room, 0);
            }
        }
    }

    /** @throws EncoderRefused */
    public function finish(): iterable
    {
        $channels = $this->audio->channels();
        while ($this->packets * self::FRAME < $this->frames + $this->head->skip) {
            $this->room->silence($this->held * $channels, (self::FRAME - $this->held) * $channels);
            $this->held = 0;
            yield $this->packet($this->room, 0);
        }
    }

    /** @throws EncoderRefused */
    private function packet(FloatBuffer $from, int $offset): Packet
    {
        $data = $this->library->encode($from, $offset, self::FRAME);
        if ($data === '') {
            throw EncoderRefused::failed(Codec::Opus, -1);
        }

        return new Packet($data, self::FRAME * $this->packets++, self::FRAME);
    }
}
