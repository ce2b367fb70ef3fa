<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Make\Pipeline\SoundInput;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Packet;
use Octavox\Core\Media\Segment;

/** A sound whose packets are copied beside a picture, counted as they pass. */
final class CopiedSound
{
    private int $held;

    private int $gaps = 0;

    private readonly \HashContext $packets;

    private readonly Segment $segment;

    public function __construct(private readonly SoundInput $input)
    {
        $segments = $input->segments();
        $this->segment = $segments[count($segments) - 1] ?? Segment::media(0, 0);
        $this->held = -(int) $this->segment->from;
        $this->packets = hash_init('xxh128');
    }

    /** Samples of silence before it. */
    public function late(): int
    {
        $first = $this->input->segments()[0] ?? null;

        return $first === null || $first->from !== null ? 0 : $first->length;
    }

    /** Decoded samples that are not presented at the start. */
    public function skip(): int
    {
        return $this->input->from->codec === Codec::Pcm ? 0 : (int) $this->segment->from;
    }

    /**
     * The packets as they are; one before a gap lasts until the next, so that the gap stays open.
     *
     * @return iterable<Packet>
     */
    public function packets(): iterable
    {
        foreach ($this->source() as $packet) {
            $this->held += $packet->length;
            hash_update($this->packets, $packet->data);
            yield $packet;
        }
    }

    public function written(): Written
    {
        return new Written(hash_final(hash_copy($this->packets)), copied: $this->input->from->codec === Codec::Pcm ? null
            : new Copied($this->held, $this->gaps));
    }

    /** @return iterable<Packet> */
    private function source(): iterable
    {
        $media = $this->input->source->media;
        if ($this->input->from->codec === Codec::Pcm) {
            return SegmentPackets::read($media, $this->input->track(), $this->segment);
        }

        return OpenGaps::close($media->packets($this->input->track(), 0, PHP_INT_MAX >> 2), $this->input->from->rate, function (): void {
            $this->gaps++;
        });
    }
}
