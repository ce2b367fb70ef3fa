<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Mp3;

use Octavox\Core\Codec\Encoder;
use Octavox\Core\Codec\EncoderRefused;
use Octavox\Core\Codec\Native\Lame;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Packet;
use Octavox\Core\Sound\Block;

/** Sound → MP3 frames; mono or stereo at the nine rates of MPEG audio. */
final class Mp3Encoder implements Encoder
{
    /** ISO/IEC 11172-3 and 13818-3, and the half rates in common use, in Hz */
    public const RATES = [8000, 11025, 12000, 16000, 22050, 24000, 32000, 44100, 48000];

    private readonly Lame $library;

    private string $held = '';

    private int $at = 0;

    private readonly AudioFormat $form;

    public function __construct(AudioFormat $form, RateControl $setting)
    {
        if (! in_array($form->rate, self::RATES, true) || $form->channels() > 2) {
            throw EncoderRefused::form(Codec::Mp3, $form->rate, $form->channels());
        }
        $this->form = new AudioFormat(Codec::Mp3, $form->rate, $form->layout, null, '', $form->rate >= 32000 ? 1152 : 576);
        $this->library = new Lame($form->rate, $form->channels(), $setting);
        if (! $this->library->isReady()) {
            throw EncoderRefused::form(Codec::Mp3, $form->rate, $form->channels());
        }
    }

    public function form(): AudioFormat
    {
        return $this->form;
    }

    public function delay(): int
    {
        return $this->library->delay() + Mp3Decoder::DELAY;
    }

    public function maker(): string
    {
        return $this->library->maker();
    }

    public function encode(Block $block): iterable
    {
        return $this->frames($this->library->encode($block));
    }

    public function finish(): iterable
    {
        return $this->frames($this->library->flush());
    }

    /** @return iterable<Packet> */
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
