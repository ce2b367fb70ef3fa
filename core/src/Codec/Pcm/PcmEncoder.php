<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Pcm;

use Octavox\Core\Codec\Encoder;
use Octavox\Core\Codec\EncoderRefused;
use Octavox\Core\Codec\Native\SampleFile;
use Octavox\Core\Codec\Native\SampleRoom;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Packet;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Media\SampleKind;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\BlockTooLarge;
use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Sound\Native\LibraryMissing;
use Octavox\Core\Sound\Native\VectorMath;

/**
 * Sound → PCM of every kind, bit depth and byte order, rounded to nearest, limited at full scale. Changes the block where it rounds to
 * other than 16 bits.
 */
final class PcmEncoder implements Encoder
{
    private readonly SampleFormat $pcm;

    private readonly SampleRoom $room;

    private readonly ?SampleFile $file;

    private ?FloatBuffer $ones = null;

    private int $at = 0;

    /**
     * @throws EncoderRefused
     * @throws LibraryMissing
     */
    public function __construct(private readonly AudioFormat $audio)
    {
        $this->pcm = $audio->pcm ?? throw EncoderRefused::audio(Codec::Pcm, $audio->rate, $audio->channels());
        $this->room = new SampleRoom;
        $direct = ! $this->pcm->bigEndian && in_array([$this->pcm->kind, $this->pcm->bits],
            [[SampleKind::Signed, 16], [SampleKind::Signed, 32], [SampleKind::Float, 32]], true);
        $this->file = $direct ? null : SampleFile::writer(SampleFileFormat::code($this->pcm), $audio->channels());
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
        return 'Octavox';
    }

    /**
     * @throws LibraryMissing
     * @throws BlockTooLarge
     */
    public function encode(Block $block): iterable
    {
        $data = $this->file === null ? $this->direct($block) : $this->throughFile($block, $this->file);
        yield new Packet($data, $this->at, $block->frames);
        $this->at += $block->frames;
    }

    public function finish(): iterable
    {
        return [];
    }

    /** @throws LibraryMissing */
    private function direct(Block $block): string
    {
        if ($this->pcm->kind === SampleKind::Float) {
            return $block->bytes();
        }
        if ($this->pcm->bits === 16) {
            $this->room->to16($block->buffer, $block->first(), $block->samples());
        } else {
            $this->room->to32($block->buffer, $block->first(), $block->samples());
        }

        return $this->room->bytes($block->samples() * $this->pcm->bytes());
    }

    /**
     * @throws LibraryMissing
     * @throws BlockTooLarge
     */
    private function throughFile(Block $block, SampleFile $file): string
    {
        if ($this->pcm->kind === SampleKind::Float) {
            return $file->writeFloats($block->buffer, $block->first(), $block->samples());
        }
        if ($this->pcm->bits === 16 || $this->pcm->kind === SampleKind::ALaw || $this->pcm->kind === SampleKind::MuLaw) {
            return $file->write16($this->room->to16($block->buffer, $block->first(), $block->samples()), $block->samples());
        }
        if ($this->pcm->bits < 32) {
            $this->addHalfStep($block);
        }

        return $file->write32($this->room->to32($block->buffer, $block->first(), $block->samples()), $block->samples());
    }

    /**
     * The library drops lower bits; half a step added before makes that a rounding.
     *
     * @throws LibraryMissing
     * @throws BlockTooLarge
     */
    private function addHalfStep(Block $block): void
    {
        $this->ones ??= FloatBuffer::fromBytes(str_repeat(pack('f', 1.0), 65536));
        for ($done = 0; $done < $block->samples(); $done += $count) {
            $count = min(65536, $block->samples() - $done);
            VectorMath::get()->add($block->buffer, $block->first() + $done, $this->ones, 0, $count, 2.0 ** -$this->pcm->bits);
        }
    }
}
