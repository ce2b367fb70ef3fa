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
use Octavox\Core\Sound\BlockTooLarge;
use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Sound\Native\LibraryMissing;

/** Sound → 4-bit telephone ADPCM, two samples a byte, mono. */
final class DialogicEncoder implements Encoder
{
    private readonly SampleFile $file;

    private readonly SampleRoom $room;

    private int $at = 0;

    private ?FloatBuffer $pairs = null;

    private int $held = 0;

    /**
     * @throws EncoderRefused
     * @throws LibraryMissing
     */
    public function __construct(private readonly AudioFormat $audio)
    {
        if ($audio->channels() !== 1) {
            throw EncoderRefused::audio(Codec::Dialogic, $audio->rate, $audio->channels());
        }
        $this->file = SampleFile::writer(DialogicDecoder::KIND, 1);
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

    /**
     * @throws BlockTooLarge
     * @throws LibraryMissing
     */
    public function encode(Block $block): iterable
    {
        // Two samples share a byte, so one may have to wait for the next block.
        $count = $this->held + $block->frames;
        if ($this->pairs === null || $this->pairs->capacity < $count) {
            $pairs = new FloatBuffer($count + 1);
            $pairs->copy(0, $this->pairs ?? $pairs, 0, $this->held);
            $this->pairs = $pairs;
        }
        $this->pairs->copy($this->held, $block->buffer, $block->first(), $block->frames);
        $whole = $count - $count % 2;
        yield from $this->packet($whole === 0 ? '' : $this->file->write16($this->room->to16($this->pairs, 0, $whole), $whole));
        $this->pairs->copy(0, $this->pairs, $whole, $count - $whole);
        $this->held = $count - $whole;
    }

    /** @throws LibraryMissing */
    public function finish(): iterable
    {
        if ($this->held > 0 && $this->pairs !== null) {
            $this->pairs->silence(1, 1);
            yield from $this->packet($this->file->write16($this->room->to16($this->pairs, 0, 2), 2));
        }
        yield from $this->packet($this->file->finish());
    }

    /** @return iterable<Packet> */
    private function packet(string $data): iterable
    {
        if ($data !== '') {
            yield new Packet($data, $this->at, 2 * strlen($data));
            $this->at += 2 * strlen($data);
        }
    }
}
