<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Vorbis;

use Octavox\Core\Codec\Encoder;
use Octavox\Core\Codec\EncoderRefused;
use Octavox\Core\Codec\EncoderSettings;
use Octavox\Core\Codec\Native\VorbisEncoding;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Codec\StereoCoding;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Packet;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\Native\LibraryMissing;

/** Sound → Vorbis packets; up to eight channels in the order of Vorbis. */
final class VorbisEncoder implements Encoder
{
    /** Samples that are given to the library at once; more would only take room. */
    private const STEP = 4096;

    private readonly VorbisEncoding $library;

    private readonly AudioFormat $audio;

    private readonly VorbisLength $length;

    private int $at = 0;

    /**
     * @throws EncoderRefused
     * @throws LibraryMissing
     */
    public function __construct(AudioFormat $audio, RateControl $rateControl, EncoderSettings $settings = new EncoderSettings)
    {
        $this->library = new VorbisEncoding($audio->rate, $audio->channels(), $rateControl, $settings->stereo !== StereoCoding::Separate);
        $headers = $this->library->isReady() ? VorbisHeaders::of(...$this->library->headers()) : null;
        $this->audio = $audio->withConfig($headers?->config()
            ?? throw EncoderRefused::audio(Codec::Vorbis, $audio->rate, $audio->channels()));
        $this->length = VorbisLength::fromHeaders($this->audio->config);
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
        return $this->library->version();
    }

    /** @throws LibraryMissing */
    public function encode(Block $block): iterable
    {
        for ($from = 0; $from < $block->frames; $from += self::STEP) {
            yield from $this->packets($this->library->encode($block->part($from, min(self::STEP, $block->frames - $from))));
        }
    }

    public function finish(): iterable
    {
        return $this->packets($this->library->finish());
    }

    /**
     * @param  list<string>  $packets
     * @return iterable<Packet>
     */
    private function packets(array $packets): iterable
    {
        foreach ($packets as $data) {
            $length = $this->length->samples($data);
            yield new Packet($data, $this->at, $length);
            $this->at += $length;
        }
    }
}
