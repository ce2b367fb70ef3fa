<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Flac;

use Octavox\Core\Codec\Encoder;
use Octavox\Core\Codec\EncoderRefused;
use Octavox\Core\Codec\EncoderSettings;
use Octavox\Core\Codec\Native\FlacEncoding;
use Octavox\Core\Codec\Pcm\PcmEncoder;
use Octavox\Core\Codec\StreamSplicer;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Packet;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\BlockTooLarge;
use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Sound\Native\LibraryMissing;

/** Frames know nothing of each other but their numbers; the MD5 sum is of all samples (RFC 9639, 8.2). */
final class FlacSplicer implements StreamSplicer
{
    private readonly PcmEncoder $samples;

    private readonly \HashContext $sum;

    private FloatBuffer $room;

    /** @var array{}|array{int, int} bytes of the smallest and the largest frame of the later stretch: higher numbers take more of them */
    private array $sizes = [];

    /**
     * @throws BlockTooLarge
     * @throws EncoderRefused
     * @throws LibraryMissing
     */
    public function __construct(private readonly AudioFormat $audio, private readonly EncoderSettings $settings)
    {
        // As they are summed: signed, least significant byte first, of whole bytes.
        $this->samples = new PcmEncoder(new AudioFormat(Codec::Pcm, $audio->rate, $audio->layout,
            SampleFormat::signed(8 * intdiv($audio->bitDepth + 7, 8))));
        $this->sum = hash_init('md5');
        $this->room = new FloatBuffer(0);
    }

    /**
     * @throws EncoderRefused
     * @throws LibraryMissing
     */
    public function encoder(): Encoder
    {
        return new FlacEncoder($this->audio, $this->settings, false);
    }

    public function step(): int
    {
        return FlacEncoding::BLOCK;
    }

    public function hearsAll(): bool
    {
        return true;
    }

    /** How long frames become nobody knows before. */
    public function knowsItsPlace(): bool
    {
        return false;
    }

    /**
     * @throws BlockTooLarge
     * @throws LibraryMissing
     */
    public function hear(Block $block): void
    {
        if ($this->room->capacity < $block->samples()) {
            $this->room = new FloatBuffer($block->samples());
        }
        $this->room->copy(0, $block->buffer, $block->first(), $block->samples());
        foreach ($this->samples->encode(new Block($this->room, $block->frames, $block->channels)) as $packet) {
            hash_update($this->sum, $packet->data);
        }
    }

    public function packet(Packet $packet, int $seam): Packet
    {
        $packet = FrameHeader::shifted($packet, intdiv($seam, FlacEncoding::BLOCK));
        $bytes = strlen($packet->data);
        $this->sizes = [min($this->sizes[0] ?? $bytes, $bytes), max($this->sizes[1] ?? 0, $bytes)];

        return new Packet($packet->data, $packet->start + $seam, $packet->length);
    }

    public function later(AudioFormat $audio): AudioFormat
    {
        return $this->sizes === [] ? $audio
            : $audio->withConfig(StreamInfo::parse($audio->config)?->ofFrames(...$this->sizes) ?? $audio->config);
    }

    public function audio(AudioFormat $earlier, AudioFormat $later, int $samples): AudioFormat
    {
        $first = StreamInfo::parse($earlier->config);
        $second = StreamInfo::parse($later->config);

        return $first === null || $second === null ? $earlier
            : $earlier->withConfig($first->joined($second, $samples, hash_final(hash_copy($this->sum), true)));
    }
}
