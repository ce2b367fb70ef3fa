<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\WavPack;

use Octavox\Core\Codec\Encoder;
use Octavox\Core\Codec\EncoderRefused;
use Octavox\Core\Codec\EncoderSettings;
use Octavox\Core\Codec\Native\WavPackEncoding;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Packet;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\Native\LibraryMissing;

/** Sound that is rounded to its bit depth → WavPack blocks. */
final class WavPackEncoder implements Encoder
{
    private readonly WavPackEncoding $library;

    private string $held = '';

    /**
     * @param  int  $samples  a channel that will come: it stands in the first block
     *
     * @throws EncoderRefused
     * @throws LibraryMissing
     */
    public function __construct(private readonly AudioFormat $audio, int $samples, EncoderSettings $settings = new EncoderSettings)
    {
        $mask = $audio->layout->mask();
        $this->library = new WavPackEncoding($audio->rate, $audio->channels(), $audio->bitDepth,
            $audio->layout->equals($audio->layout->inMaskOrder()) ? $mask : 0, $samples, $settings->compression ?? 1);
        if (! $this->library->isReady()) {
            throw EncoderRefused::audio(Codec::WavPack, $audio->rate, $audio->channels());
        }
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

    /**
     * @throws EncoderRefused
     * @throws LibraryMissing
     */
    public function encode(Block $block): iterable
    {
        return $this->packets($this->library->encode($block));
    }

    /** @throws EncoderRefused */
    public function finish(): iterable
    {
        return $this->packets($this->library->finish());
    }

    /**
     * @param  list<string>  $blocks
     * @return iterable<Packet>
     *
     * @throws EncoderRefused
     */
    private function packets(array $blocks): iterable
    {
        foreach ($blocks as $block) {
            $header = BlockHeader::parse($block) ?? throw EncoderRefused::failed(Codec::WavPack, -1);
            $this->held .= $block;
            if ($header->isLast()) {
                yield new Packet($this->held, $header->start, $header->samples);
                $this->held = '';
            }
        }
    }
}
