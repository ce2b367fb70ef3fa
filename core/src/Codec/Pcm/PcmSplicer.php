<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Pcm;

use Octavox\Core\Codec\Encoder;
use Octavox\Core\Codec\EncoderRefused;
use Octavox\Core\Codec\StreamSplicer;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Packet;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\Native\LibraryMissing;

/** Samples stand beside each other. */
final class PcmSplicer implements StreamSplicer
{
    public function __construct(private readonly AudioFormat $audio) {}

    /**
     * @throws EncoderRefused
     * @throws LibraryMissing
     */
    public function encoder(): Encoder
    {
        return new PcmEncoder($this->audio);
    }

    public function step(): int
    {
        return 1;
    }

    public function hearsAll(): bool
    {
        return false;
    }

    public function knowsItsPlace(): bool
    {
        return true;
    }

    public function hear(Block $block): void {}

    public function packet(Packet $packet, int $seam): Packet
    {
        return new Packet($packet->data, $packet->start + $seam, $packet->length);
    }

    public function later(AudioFormat $audio): AudioFormat
    {
        return $audio;
    }

    public function audio(AudioFormat $earlier, AudioFormat $later, int $samples): AudioFormat
    {
        return $earlier;
    }
}
