<?php

declare(strict_types=1);

namespace Octavox\Core\Make\Pipeline;

use Octavox\Core\Codec\Codecs;
use Octavox\Core\Codec\Encoder;
use Octavox\Core\Failure;
use Octavox\Core\Make\DecodeDigest;
use Octavox\Core\Make\Encoded;
use Octavox\Core\Make\LevelSetting;
use Octavox\Core\Make\VerifyingDecoder;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Packet;
use Octavox\Core\Media\Phase;
use Octavox\Core\Media\Progress;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\BlockTooLarge;
use Octavox\Core\Sound\LevelMeter;
use Octavox\Core\Sound\Native\LibraryMissing;
use Octavox\Core\Sound\NoStandardMix;

/**
 * One sound on its way: decode → filters → encode, with all that the verification must know measured on the way. Whoever muxes takes the
 * packets, alone or beside a picture; a second processor decodes them at once ({@see VerifyingDecoder}).
 */
final class SoundPipeline
{
    private readonly Filters $filters;

    private readonly LevelMeter $meter;

    private readonly \HashContext $packets;

    /** Of samples that must come out again; equal bytes of PCM are equal samples. */
    private readonly ?\HashContext $samples;

    /** Of the sound as it comes in; null where its level stays as it is. */
    private readonly ?LevelMeter $incoming;

    private readonly ?VerifyingDecoder $decoder;

    private int $done = 0;

    /**
     * @param  ?int  $until  samples that this encoder will be given; null for all of the plan's
     *
     * @throws BlockTooLarge
     * @throws NoStandardMix
     */
    public function __construct(
        public readonly SoundInput $input,
        public readonly Encoder $encoder,
        private readonly ?LevelSetting $setting,
        private readonly Progress $progress,
        ?int $until = null,
    ) {
        $plan = $input->plan;
        $audio = $encoder->audio();
        $this->filters = new Filters($input, $setting?->gain->factor() ?? 1.0);
        $this->meter = new LevelMeter;
        $this->incoming = $this->filters->changeLevel() ? new LevelMeter : null;
        $this->packets = hash_init('xxh128');
        $this->samples = $plan->audio->bitDepth > 0 && $plan->audio->codec !== Codec::Pcm ? hash_init('xxh128') : null;
        $this->decoder = $plan->audio->codec !== Codec::Pcm && Codecs::canDecode($audio)
            ? VerifyingDecoder::start($audio, $encoder->delay(), $until ?? $plan->samples) : null;
    }

    /**
     * @return iterable<Packet> all packets, in order
     *
     * @throws Failure
     */
    public function packets(): iterable
    {
        foreach ($this->blocks() as $block) {
            yield from $this->encode($block);
        }
        yield from $this->finish();
    }

    /**
     * The filtered sound, measured as it passes.
     *
     * @return iterable<Block>
     *
     * @throws Failure
     */
    public function blocks(): iterable
    {
        foreach ($this->filters->blocks(incoming: $this->incoming) as $block) {
            yield $block;
        }
    }

    /**
     * The same once more, measured by nobody.
     *
     * @return iterable<Block>
     *
     * @throws Failure
     */
    public function blocksAgain(): iterable
    {
        return $this->filters->blocks();
    }

    /**
     * Measures a block and encodes it.
     *
     * @return iterable<Packet>
     *
     * @throws LibraryMissing
     */
    public function encode(Block $block): iterable
    {
        $this->measure($block);
        yield from $this->encodeOnly($block);
    }

    /** @return iterable<Packet> */
    public function encodeOnly(Block $block): iterable
    {
        yield from $this->noted($this->encoder->encode($block));
    }

    /** @return iterable<Packet> */
    public function finish(): iterable
    {
        yield from $this->noted($this->encoder->finish());
    }

    /** @throws LibraryMissing */
    public function measure(Block $block): void
    {
        $this->meter->measure($block);
        if ($this->samples !== null) {
            hash_update($this->samples, $block->bytes());
        }
        $this->done += $block->frames;
    }

    /** Samples that were measured. */
    public function done(): int
    {
        return $this->done;
    }

    /** Takes in what another process has measured of the sound behind what was measured here. */
    public function join(ParallelTail $tail): void
    {
        $this->meter->join($tail->level(), $tail->frames() * $this->input->plan->audio->channels());
        $this->incoming?->join($tail->incoming(), $tail->frames() * $this->input->from->channels());
        $this->done += $tail->frames();
    }

    /** Takes in bytes of packets that another process has made. */
    public function notePackets(string $bytes): void
    {
        hash_update($this->packets, $bytes);
    }

    /** XXH128 of the packets so far. */
    public function packetSum(): string
    {
        return hash_final(hash_copy($this->packets));
    }

    /** XXH128 of the samples so far, where they must come out again. */
    public function sampleSum(): ?string
    {
        return $this->samples === null ? null : hash_final(hash_copy($this->samples));
    }

    /** What was decoded of the packets while they were made; waits for it. */
    public function digest(AudioFormat $audio): ?DecodeDigest
    {
        return $this->decoder?->finish($audio,
            fn () => $this->progress->reached(Phase::Making, $this->input->plan->samples, $this->input->plan->samples));
    }

    /** @param  ?DecodeDigest  $digest  of all packets */
    public function encoded(?DecodeDigest $digest): Encoded
    {
        return new Encoded($this->meter->level(), $this->incoming?->level(), $this->sampleSum(), $digest, $this->setting,
            intdiv($this->meter->samples(), $this->input->plan->audio->channels()));
    }

    /**
     * @param  iterable<Packet>  $packets
     * @return iterable<Packet>
     */
    private function noted(iterable $packets): iterable
    {
        foreach ($packets as $packet) {
            $this->decoder?->take($packet);
            hash_update($this->packets, $packet->data);
            yield $packet;
        }
    }
}
