<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Flac;

use Octavox\Core\Codec\Encoder;
use Octavox\Core\Codec\EncoderRefused;
use Octavox\Core\Codec\EncoderSettings;
use Octavox\Core\Codec\Native\FlacEncoding;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Packet;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\Native\LibraryMissing;

/** Sound that is rounded to its bit depth → FLAC frames of 4,096 samples a channel. */
final class FlacEncoder implements Encoder
{
    /** RFC 9639, 8.2 and 9.1: eight channels, 2²⁰ − 1 Hz */
    public const MOST_CHANNELS = 8;

    private readonly FlacEncoding $library;

    private int $at = 0;

    /**
     * @param  bool  $sums  whether the MD5 sum of all samples is taken for the set-up bytes
     *
     * @throws EncoderRefused
     * @throws LibraryMissing
     */
    public function __construct(private readonly AudioFormat $audio, EncoderSettings $settings = new EncoderSettings,
        bool $sums = true)
    {
        $this->library = new FlacEncoding($audio->rate, $audio->channels(), $audio->bitDepth, $settings, $sums);
        if (! $this->library->isReady()) {
            throw EncoderRefused::audio(Codec::Flac, $audio->rate, $audio->channels());
        }
    }

    public function audio(): AudioFormat
    {
        return $this->audio->withConfig($this->library->streamInfo());
    }

    public function delay(): int
    {
        return 0;
    }

    public function maker(): string
    {
        return 'FLAC';
    }

    /** @throws LibraryMissing */
    public function encode(Block $block): iterable
    {
        return $this->packets($this->library->encode($block));
    }

    public function finish(): iterable
    {
        return $this->packets($this->library->finish());
    }

    /**
     * @param  list<array{string, int}>  $frames
     * @return iterable<Packet>
     */
    private function packets(array $frames): iterable
    {
        foreach ($frames as [$data, $samples]) {
            yield new Packet($data, $this->at, $samples);
            $this->at += $samples;
        }
    }
}
