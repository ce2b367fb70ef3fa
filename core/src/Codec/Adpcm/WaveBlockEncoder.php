<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Adpcm;

use Octavox\Core\Codec\Encoder;
use Octavox\Core\Codec\EncoderRefused;
use Octavox\Core\Codec\Native\SampleFile;
use Octavox\Core\Codec\Native\SampleRoom;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Packet;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\Native\LibraryMissing;

/** Sound → blocks of IMA ADPCM, Microsoft ADPCM or GSM 6.10 as WAV has them; several blocks a packet. */
final class WaveBlockEncoder implements Encoder
{
    private readonly SampleFile $file;

    private readonly SampleRoom $room;

    private string $held = '';

    private int $at = 0;

    /**
     * @throws EncoderRefused
     * @throws LibraryMissing
     */
    public function __construct(private readonly AudioFormat $audio)
    {
        $kind = match ($audio->codec) {
            Codec::AdpcmIma => 0x0012,
            Codec::AdpcmMs => 0x0013,
            Codec::Gsm => 0x0020,
            default => 0,
        };
        if ($kind === 0 || $audio->channels() > ($audio->codec === Codec::Gsm ? 1 : 2)) {
            throw EncoderRefused::audio($audio->codec, $audio->rate, $audio->channels());
        }
        $this->file = SampleFile::waveWriter($kind, $audio->channels(), $audio->rate);
        $this->room = new SampleRoom;
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
        return 'libsndfile';
    }

    /** @throws LibraryMissing */
    public function encode(Block $block): iterable
    {
        $this->held .= $this->file->write16($this->room->to16($block->buffer, $block->first(), $block->samples()), $block->samples());

        return $this->packets();
    }

    public function finish(): iterable
    {
        $this->held .= $this->file->finish();

        return $this->packets();
    }

    /** @return iterable<Packet> */
    private function packets(): iterable
    {
        $shape = WaveBlocks::of($this->audio);
        $blocks = intdiv(strlen($this->held), $shape->bytes);
        if ($blocks > 0) {
            yield new Packet(substr($this->held, 0, $blocks * $shape->bytes), $this->at, $blocks * $shape->samples);
            $this->held = substr($this->held, $blocks * $shape->bytes);
            $this->at += $blocks * $shape->samples;
        }
    }
}
