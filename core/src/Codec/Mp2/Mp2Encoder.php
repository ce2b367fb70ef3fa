<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Mp2;

use Octavox\Core\Codec\Encoder;
use Octavox\Core\Codec\EncoderRefused;
use Octavox\Core\Codec\EncoderSettings;
use Octavox\Core\Codec\Mp3\FrameHeader;
use Octavox\Core\Codec\Native\TwoLame;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Packet;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\BlockTooLarge;
use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Sound\Native\LibraryMissing;

/** Sound → MPEG audio layer II frames of 1,152 samples; mono or stereo. */
final class Mp2Encoder implements Encoder
{
    private readonly TwoLame $library;

    private readonly AudioFormat $audio;

    private string $held = '';

    private int $at = 0;

    /**
     * @throws EncoderRefused
     * @throws LibraryMissing
     */
    public function __construct(AudioFormat $audio, RateControl $rateControl, EncoderSettings $settings = new EncoderSettings)
    {
        if (! in_array($audio->rate, Mp2Facts::RATES, true) || $audio->channels() > 2) {
            throw EncoderRefused::audio(Codec::Mp2, $audio->rate, $audio->channels());
        }
        $this->audio = new AudioFormat(Codec::Mp2, $audio->rate, $audio->layout, null, '', 1152);
        $this->library = new TwoLame($audio->rate, $audio->channels(), $rateControl->kbps, $settings);
        if (! $this->library->isReady()) {
            throw EncoderRefused::audio(Codec::Mp2, $audio->rate, $audio->channels());
        }
    }

    public function audio(): AudioFormat
    {
        return $this->audio;
    }

    public function delay(): int
    {
        return Mp2Facts::DELAY;
    }

    public function maker(): string
    {
        return $this->library->version();
    }

    /** @throws EncoderRefused */
    public function encode(Block $block): iterable
    {
        return $this->frames($this->library->encode($block));
    }

    /**
     * @throws BlockTooLarge
     * @throws EncoderRefused
     */
    public function finish(): iterable
    {
        // The sound comes out late; without these its end would be missing.
        $silence = new FloatBuffer(Mp2Facts::DELAY * $this->audio->channels());
        yield from $this->frames($this->library->encode(new Block($silence, Mp2Facts::DELAY, $this->audio->channels())));
        yield from $this->frames($this->library->flush());
    }

    /**
     * @return iterable<Packet>
     *
     * @throws EncoderRefused
     */
    private function frames(?string $given): iterable
    {
        $this->held .= $given ?? throw EncoderRefused::failed(Codec::Mp2, -1);
        $place = 0;
        while (strlen($this->held) - $place >= 4) {
            $header = FrameHeader::parse(substr($this->held, $place, 4)) ?? throw EncoderRefused::failed(Codec::Mp2, -100);
            if ($place + $header->bytes > strlen($this->held)) {
                break;
            }
            yield new Packet(substr($this->held, $place, $header->bytes), $this->at, $header->samples);
            $this->at += $header->samples;
            $place += $header->bytes;
        }
        $this->held = substr($this->held, $place);
    }
}
