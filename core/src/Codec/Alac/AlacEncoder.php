<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Alac;

use Octavox\Core\Codec\Encoder;
use Octavox\Core\Codec\EncoderRefused;
use Octavox\Core\Codec\Native\SampleFile;
use Octavox\Core\Codec\Native\SampleRoom;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Packet;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\Native\FloatBuffer;

/** Sound that is rounded to its width → ALAC packets of 4,096 samples a channel, made by the sample library in small CAF files. */
final class AlacEncoder implements Encoder
{
    private const FRAMES = 4096;

    private const TOGETHER = 32;

    private AudioFormat $form;

    private readonly FloatBuffer $room;

    private readonly SampleRoom $numbers;

    private int $held = 0;

    private int $at = 0;

    public function __construct(AudioFormat $form)
    {
        if ($form->channels() > 8 || ! in_array($form->width, [16, 24], true)) {
            throw EncoderRefused::form(Codec::Alac, $form->rate, $form->channels());
        }
        $this->room = new FloatBuffer(self::TOGETHER * self::FRAMES * $form->channels());
        $this->numbers = new SampleRoom;
        $this->form = new AudioFormat(Codec::Alac, $form->rate, $form->layout, null, '', 0, '', $form->width);
        $this->room->silence(0, self::FRAMES * $form->channels());
        [$cookie] = AlacFile::read($this->file(self::FRAMES));
        $this->form = $this->form->withConfig($cookie);
    }

    public function form(): AudioFormat
    {
        return $this->form;
    }

    public function delay(): int
    {
        return 0;
    }

    public function maker(): string
    {
        return 'ALAC';
    }

    public function encode(Block $block): iterable
    {
        $channels = $this->form->channels();
        for ($from = 0; $from < $block->frames; $from += $count) {
            $count = min(self::TOGETHER * self::FRAMES - $this->held, $block->frames - $from);
            $this->room->copy($this->held * $channels, $block->buffer, $block->first() + $from * $channels, $count * $channels);
            $this->held += $count;
            if ($this->held === self::TOGETHER * self::FRAMES) {
                yield from $this->packets();
            }
        }
    }

    public function finish(): iterable
    {
        return $this->held > 0 ? $this->packets() : [];
    }

    /** @return iterable<Packet> */
    private function packets(): iterable
    {
        $left = $this->held;
        [, $packets] = AlacFile::read($this->file($left));
        foreach ($packets as $data) {
            $length = min(self::FRAMES, $left);
            if ($this->form->width === 24 && $this->form->channels() === 2 && EscapedPair::is($data)) {
                $data = EscapedPair::write($this->room, $this->held - $left, $length, $length < self::FRAMES);
            }
            yield new Packet($data, $this->at, $length);
            $this->at += $length;
            $left -= $length;
        }
        $this->held = 0;
    }

    private function file(int $frames): string
    {
        $samples = $frames * $this->form->channels();
        $file = SampleFile::coreAudioWriter($this->form->width === 16 ? 0x0070 : 0x0072, $this->form->channels(), $this->form->rate);

        return $file->write32($this->numbers->to32($this->room, 0, $samples), $samples).$file->finish();
    }
}
