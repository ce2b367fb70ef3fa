<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Alac;

use Octavox\Core\Codec\Encoder;
use Octavox\Core\Codec\EncoderRefused;
use Octavox\Core\Codec\Native\SampleFile;
use Octavox\Core\Codec\Native\SampleRoom;
use Octavox\Core\Failure;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Packet;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\BlockTooLarge;
use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Sound\Native\LibraryMissing;

/** Sound that is rounded to its bit depth → ALAC packets of 4,096 samples a channel, made by the sample library in small CAF files. */
final class AlacEncoder implements Encoder
{
    private const FRAMES = 4096;

    private const TOGETHER = 32;

    private AudioFormat $audio;

    private readonly FloatBuffer $room;

    private readonly SampleRoom $numbers;

    private int $held = 0;

    private int $at = 0;

    /**
     * @throws EncoderRefused
     * @throws BlockTooLarge
     * @throws LibraryMissing
     */
    public function __construct(AudioFormat $audio)
    {
        if ($audio->channels() > 8 || ! in_array($audio->bitDepth, [16, 24], true)) {
            throw EncoderRefused::audio(Codec::Alac, $audio->rate, $audio->channels());
        }
        $this->room = new FloatBuffer(self::TOGETHER * self::FRAMES * $audio->channels());
        $this->numbers = new SampleRoom;
        $this->audio = new AudioFormat(Codec::Alac, $audio->rate, $audio->layout, null, '', 0, '', $audio->bitDepth);
        $this->room->silence(0, self::FRAMES * $audio->channels());
        [$cookie] = AlacFile::read($this->file(self::FRAMES));
        $this->audio = $this->audio->withConfig($cookie);
    }

    public function audio(): AudioFormat
    {
        return $this->audio;
    }

    public function delay(): int
    {
        return 0;
    }

    public function maker(): string
    {
        return 'ALAC';
    }

    /**
     * @throws Failure
     */
    public function encode(Block $block): iterable
    {
        $channels = $this->audio->channels();
        for ($from = 0; $from < $block->frames; $from += $count) {
            $count = min(self::TOGETHER * self::FRAMES - $this->held, $block->frames - $from);
            $this->room->copy($this->held * $channels, $block->buffer, $block->first() + $from * $channels, $count * $channels);
            $this->held += $count;
            if ($this->held === self::TOGETHER * self::FRAMES) {
                yield from $this->packets();
            }
        }
    }

    /**
     * @throws Failure
     */
    public function finish(): iterable
    {
        return $this->held > 0 ? $this->packets() : [];
    }

    /**
     * @return iterable<Packet>
     *
     * @throws Failure
     */
    private function packets(): iterable
    {
        $left = $this->held;
        [, $packets] = AlacFile::read($this->file($left));
        $wrong = $this->wrong($packets);
        foreach ($packets as $index => $data) {
            $length = min(self::FRAMES, $left);
            if (isset($wrong[$index])) {
                $data = EscapedPacket::write($this->room, $this->audio->channels(), $this->held - $left, $length);
            }
            yield new Packet($data, $this->at, $length);
            $this->at += $length;
            $left -= $length;
        }
        $this->held = 0;
    }

    /**
     * Packets that hold a pair of channels in the way that the library has wrong. Of two channels that shows at once; of more only when
     * they are decoded.
     *
     * @param  list<string>  $packets
     * @return array<int, true>
     *
     * @throws Failure
     */
    private function wrong(array $packets): array
    {
        $channels = $this->audio->channels();
        if ($this->audio->bitDepth !== 24 || $channels < 2) {
            return [];
        }
        $wrong = array_filter($packets, $channels === 2 ? EscapedPacket::is(...) : fn (string $packet): bool => false);
        if ($channels > 2) {
            $decoder = new AlacDecoder($this->audio);
            foreach ($packets as $index => $packet) {
                $first = $index * self::FRAMES;
                $length = min(self::FRAMES, $this->held - $first);
                $decoder->decode(new Packet($packet, $first, $length));
                $block = $decoder->finish();
                if ($block?->bytes() !== $this->room->bytes($first * $channels, $length * $channels)) {
                    $wrong[$index] = $packet;
                }
            }
        }

        return array_map(fn (): bool => true, $wrong);
    }

    /** @throws LibraryMissing */
    private function file(int $frames): string
    {
        $samples = $frames * $this->audio->channels();
        $file = SampleFile::coreAudioWriter($this->audio->bitDepth === 16 ? 0x0070 : 0x0072, $this->audio->channels(), $this->audio->rate);

        return $file->write32($this->numbers->to32($this->room, 0, $samples), $samples).$file->finish();
    }
}
