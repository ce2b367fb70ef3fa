<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Mp3;

use Octavox\Core\Codec\Encoder;
use Octavox\Core\Codec\EncoderRefused;
use Octavox\Core\Codec\EncoderSettings;
use Octavox\Core\Codec\Native\Lame;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Packet;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\BlockTooLarge;
use Octavox\Core\Sound\Limited;
use Octavox\Core\Sound\Native\LibraryMissing;

/** Sound → MP3 frames; mono or stereo at the nine rates of MPEG audio. */
final class Mp3Encoder implements Encoder
{
    /** Of full scale; beyond, the library finds no step that is coarse enough, and ends its process. */
    private const MOST = 4.0;

    private readonly Lame $library;

    private string $held = '';

    private int $at = 0;

    private readonly AudioFormat $audio;

    /**
     * @throws EncoderRefused
     * @throws LibraryMissing
     */
    public function __construct(AudioFormat $audio, RateControl $rateControl, EncoderSettings $settings = new EncoderSettings)
    {
        if (! in_array($audio->rate, Mp3Facts::RATES, true) || $audio->channels() > 2) {
            throw EncoderRefused::audio(Codec::Mp3, $audio->rate, $audio->channels());
        }
        $this->audio = new AudioFormat(Codec::Mp3, $audio->rate, $audio->layout, null, '', $audio->rate >= 32000 ? 1152 : 576);
        $this->library = new Lame($audio->rate, $audio->channels(), $rateControl, $settings);
        if (! $this->library->isReady()) {
            throw EncoderRefused::audio(Codec::Mp3, $audio->rate, $audio->channels());
        }
    }

    public function audio(): AudioFormat
    {
        return $this->audio;
    }

    public function delay(): int
    {
        return $this->library->delay() + Mp3Facts::DECODER_DELAY;
    }

    public function maker(): string
    {
        return $this->library->maker();
    }

    /**
     * @throws EncoderRefused
     * @throws LibraryMissing
     * @throws BlockTooLarge
     */
    public function encode(Block $block): iterable
    {
        return $this->frames($this->library->encode(Limited::to(self::MOST, $block)));
    }

    /** @throws EncoderRefused */
    public function finish(): iterable
    {
        return $this->frames($this->library->flush());
    }

    /**
     * @return iterable<Packet>
     *
     * @throws EncoderRefused
     */
    private function frames(string|int $given): iterable
    {
        if (is_int($given)) {
            throw EncoderRefused::failed(Codec::Mp3, $given);
        }
        $this->held .= $given;
        $place = 0;
        while (strlen($this->held) - $place >= 4) {
            $header = FrameHeader::parse(substr($this->held, $place, 4)) ?? throw EncoderRefused::failed(Codec::Mp3, -100);
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
