<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Mp2;

use Octavox\Core\Codec\Encoder;
use Octavox\Core\Codec\EncoderRefused;
use Octavox\Core\Codec\Mp3\FrameHeader;
use Octavox\Core\Codec\Native\TwoLame;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Packet;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\Native\FloatBuffer;

/** Sound → MPEG audio layer II frames of 1,152 samples; mono or stereo. */
final class Mp2Encoder implements Encoder
{
    /** ISO/IEC 11172-3 and 13818-3, 2.4.2.3, in Hz */
    public const RATES = [16000, 22050, 24000, 32000, 44100, 48000];

    /** Samples of encoder and decoder together: two filter banks of 512 taps that move by 32 (ISO/IEC 11172-3, annex C), as measured. */
    public const DELAY = 481;

    private readonly TwoLame $library;

    private readonly AudioFormat $audio;

    private string $held = '';

    private int $at = 0;

    public function __construct(AudioFormat $audio, RateControl $setting)
    {
        if (! in_array($audio->rate, self::RATES, true) || $audio->channels() > 2) {
            throw EncoderRefused::audio(Codec::Mp2, $audio->rate, $audio->channels());
        }
        $this->audio = new AudioFormat(Codec::Mp2, $audio->rate, $audio->layout, null, '', 1152);
        $this->library = new TwoLame($audio->rate, $audio->channels(), $setting->kbps);
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
        return self::DELAY;
    }

    public function maker(): string
    {
        return $this->library->version();
    }

    public function encode(Block $block): iterable
    {
        return $this->frames($this->library->encode($block));
    }

    public function finish(): iterable
    {
        // The sound comes out late; without these its end would be missing.
        $silence = new FloatBuffer(self::DELAY * $this->audio->channels());
        yield from $this->frames($this->library->encode(new Block($silence, self::DELAY, $this->audio->channels())));
        yield from $this->frames($this->library->flush());
    }

    /** @return iterable<Packet> */
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
