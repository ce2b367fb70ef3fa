<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Pcm;

use Octavox\Core\Codec\CodecNotDecodable;
use Octavox\Core\Codec\EncoderRefused;
use Octavox\Core\Codec\PacketUndecodable;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Packet;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\BlockTooLarge;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Sound\Native\LibraryMissing;
use Octavox\Core\Sound\Stage;

/** Rounds samples to a bit depth and limits them at full scale, so that an encoder that keeps every bit keeps exactly these. */
final class Rounding implements Stage
{
    private readonly PcmEncoder $encoder;

    private readonly PcmDecoder $decoder;

    /**
     * @param  int  $bits  8, 16 or 24
     *
     * @throws CodecNotDecodable
     * @throws EncoderRefused
     * @throws LibraryMissing
     */
    public function __construct(int $bits, int $rate, Layout $layout)
    {
        $audio = AudioFormat::pcm(SampleFormat::signed($bits), $rate, $layout);
        $this->encoder = new PcmEncoder($audio);
        $this->decoder = new PcmDecoder($audio);
    }

    /**
     * @throws PacketUndecodable
     * @throws BlockTooLarge
     * @throws LibraryMissing
     */
    public function take(Block $block): iterable
    {
        foreach ($this->encoder->encode($block) as $packet) {
            yield $this->decoder->decode(new Packet($packet->data, 0, $packet->length));
        }
    }

    public function finish(): iterable
    {
        return [];
    }
}
