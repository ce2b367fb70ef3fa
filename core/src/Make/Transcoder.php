<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileSink;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Codec\Codecs;
use Octavox\Core\Codec\Encoder;
use Octavox\Core\Codec\EncoderRefused;
use Octavox\Core\Codec\StreamSplicer;
use Octavox\Core\Container\OutputFormat;
use Octavox\Core\Container\SoundWriter;
use Octavox\Core\Container\StretchWriter;
use Octavox\Core\Decode\SoundMissing;
use Octavox\Core\Failure;
use Octavox\Core\Make\Pipeline\ParallelTail;
use Octavox\Core\Make\Pipeline\SoundInput;
use Octavox\Core\Make\Pipeline\SoundPipeline;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Packet;
use Octavox\Core\Media\Phase;
use Octavox\Core\Media\Progress;
use Octavox\Core\Plan\SoundPlan;
use Octavox\Core\Plan\Target;
use Octavox\Core\Sound\BlockSplitter;
use Octavox\Core\Sound\BlockTooLarge;
use Octavox\Core\Sound\LevelMeter;
use Octavox\Core\Sound\Native\LibraryMissing;
use Octavox\Core\Tag\Tags;

/**
 * Muxes one encoded sound into a file of its own; a long one is made by two processes, where its codec lets their parts be joined exactly.
 */
final class Transcoder
{
    private readonly SoundPlan $plan;

    private readonly ?StreamSplicer $splicer;

    private ?ParallelTail $tail = null;

    private ?SoundWriter $writer = null;

    private bool $joined = false;

    /** What was decoded of the first part. */
    private ?DecodeDigest $firstDigest = null;

    /** XXH128 of the packets of the first part, and of the samples that became them. */
    private string $firstPackets = '';

    private ?string $firstSamples = null;

    /** XXH128 of the packets of the later part. */
    private string $laterPackets = '';

    /** Samples after which everything is made. */
    private int $last;

    /**
     * @throws BlockTooLarge
     * @throws EncoderRefused
     * @throws LibraryMissing
     * @throws Failure
     */
    public function __construct(
        private readonly SoundInput $input,
        private readonly Target $target,
        private readonly OutputFormat $format,
        private readonly FileSink $sink,
        private readonly Tags $tags,
        private readonly Progress $progress,
    ) {
        $this->plan = $input->plan;
        $this->last = max(1, $this->plan->samples);
        $this->splicer = Codecs::splicer($this->plan->audio, $this->plan->settings);
    }

    /**
     * @param  string  $beside  path of a file that does not exist yet, for what a second process makes
     *
     * @throws Failure
     */
    public function run(string $beside): Written
    {
        $setting = LevelSetting::of($this->input, $this->progress);
        $pipeline = $this->begin($setting, $beside);
        $audio = match (true) {
            $this->splicer === null || $this->tail === null => $this->alone($pipeline),
            $this->splicer->hearsAll() => $this->hearingAll($pipeline, $this->splicer, $this->tail),
            default => $this->halved($pipeline, $this->splicer, $this->tail),
        };
        if ($this->format->presented($this->plan->audio, $pipeline->done()) !== $this->plan->samples) {
            throw SoundMissing::seconds($this->input->path(), ($this->plan->samples - $pipeline->done()) / $this->plan->audio->rate);
        }
        $this->writer()->finish($this->plan->samples, $audio);
        $packets = $pipeline->packetSum();
        // Of what stood in the result at once nobody has had all in its order.
        $seams = $this->joined && $this->splicer?->knowsItsPlace() === true ? [$this->tail->begins ?? 0] : [];

        return new Written(
            $seams === [] ? $packets : $packets.' '.$this->tail?->hash(), $this->sink->checksum(),
            $pipeline->encoded($this->digest($pipeline, $audio, $packets)), seams: $seams,
        );
    }

    /**
     * @throws Failure
     */
    private function begin(?LevelSetting $setting, string $beside): SoundPipeline
    {
        $gain = $setting?->gain->factor() ?? 1.0;
        if ($this->splicer?->knowsItsPlace() === true) {
            $encoder = $this->splicer->encoder();
            $this->writer = $this->open($encoder);
            if ($this->writer instanceof StretchWriter) {
                $this->tail = ParallelTail::start($this->input, $this->splicer, $gain, $this->target, $this->sink->path,
                    $this->sink->position());
            }
            if ($this->tail !== null) {
                $this->sink->needsNoChecksum();
            }
        } else {
            $this->tail = $this->splicer === null ? null : ParallelTail::start($this->input, $this->splicer, $gain, $this->target, $beside);
            $encoder = $this->splicer === null || $this->tail === null
                ? Codecs::encoder($this->plan->audio, $this->plan->rateControl, $this->plan->samples, $this->plan->settings)
                : $this->splicer->encoder();
            $this->writer = $this->open($encoder);
        }

        return new SoundPipeline($this->input, $encoder, $setting, $this->progress, $this->tail?->begins);
    }

    private function open(Encoder $encoder): SoundWriter
    {
        return $this->format->writer($this->sink, $encoder->audio(), $this->tags, $this->plan->samples, $encoder->delay(),
            $encoder->maker());
    }

    /**
     * @throws Failure
     */
    private function alone(SoundPipeline $pipeline): AudioFormat
    {
        foreach ($pipeline->blocks() as $block) {
            $this->write($pipeline->encode($block));
            $this->made($pipeline);
        }
        $this->write($pipeline->finish());

        return $pipeline->encoder->audio();
    }

    /**
     * Another process makes everything from the seam on, if it goes on exactly from what was made here.
     *
     * @throws Failure
     */
    private function halved(SoundPipeline $pipeline, StreamSplicer $splicer, ParallelTail $tail): AudioFormat
    {
        $this->last = $tail->begins;
        $lead = hash_init('xxh128');
        foreach (BlockSplitter::at($pipeline->blocks(), [$tail->begins - $tail->lead, $tail->begins]) as $block) {
            $done = $pipeline->done();
            if ($done === $tail->begins && $tail->follows(hash_final($lead), $this->progress)) {
                $this->joined = true;
                break;
            }
            $this->last = $done >= $tail->begins ? $this->plan->samples : $this->last;
            if ($done >= $tail->begins - $tail->lead && $done < $tail->begins) {
                hash_update($lead, $block->bytes());
            }
            $this->write($pipeline->encode($block));
            $this->made($pipeline);
        }
        $this->write($pipeline->finish());
        if (! $this->joined) {
            return $pipeline->encoder->audio();
        }
        $this->stretches()->copy($tail->stretch());
        $tail->tell($this->input->source->damage);
        $pipeline->join($tail);

        return $splicer->audio($pipeline->encoder->audio(), $tail->audio(), $pipeline->done());
    }

    /**
     * Another process encodes everything from the seam on, if that is exactly the sound that passes here.
     *
     * @throws Failure
     */
    private function hearingAll(SoundPipeline $pipeline, StreamSplicer $splicer, ParallelTail $tail): AudioFormat
    {
        $after = hash_init('xxh128');
        foreach (BlockSplitter::at($pipeline->blocks(), [$tail->begins]) as $block) {
            $isBefore = $pipeline->done() < $tail->begins;
            if ($pipeline->done() === $tail->begins) {
                $this->firstSamples = $pipeline->sampleSum();
            }
            $splicer->hear($block);
            if ($isBefore) {
                $this->write($pipeline->encode($block));
            } else {
                hash_update($after, $block->bytes());
                $pipeline->measure($block);
            }
            $this->made($pipeline);
        }
        if ($tail->isOf(hash_final($after), $this->progress)) {
            $this->write($pipeline->finish());
            $this->firstDigest = $pipeline->digest($pipeline->encoder->audio());
            $this->firstPackets = $pipeline->packetSum();
            $this->joined = true;
            $this->append($pipeline, $tail);

            return $splicer->audio($pipeline->encoder->audio(), $tail->audio(), $pipeline->done());
        }
        // From the start, because a decoder that begins in the midst may give other samples than those that were summed.
        $at = 0;
        foreach (BlockSplitter::at($pipeline->blocksAgain(), [$tail->begins]) as $block) {
            if ($at >= $tail->begins) {
                $this->write($pipeline->encodeOnly($block));
            }
            $at += $block->frames;
            $this->progress->reached(Phase::Making, $pipeline->done(), $this->plan->samples);
        }
        $this->write($pipeline->finish());

        return $splicer->audio($pipeline->encoder->audio(), $pipeline->encoder->audio(), $pipeline->done());
    }

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function append(SoundPipeline $pipeline, ParallelTail $tail): void
    {
        $stretch = $tail->stretch();
        $this->stretches()->copy($stretch);
        $own = hash_init('xxh128');
        foreach ($stretch->pieces() as $bytes) {
            $pipeline->notePackets($bytes);
            hash_update($own, $bytes);
        }
        $this->laterPackets = hash_final($own);
    }

    /** What was decoded of the result while it was made: of both parts, where there are two. */
    private function digest(SoundPipeline $pipeline, AudioFormat $audio, string $packets): ?DecodeDigest
    {
        $samples = $pipeline->sampleSum();
        if (! $this->joined || $samples === null) {
            return $pipeline->digest($audio);
        }
        $first = $this->firstDigest;
        $second = $this->tail?->digest($this->laterPackets);
        if ($first === null || $second === null || $first->packets !== $this->firstPackets || $first->samples !== $this->firstSamples) {
            return null;
        }
        $channels = $this->plan->audio->channels();
        $level = new LevelMeter;
        $level->join($first->level, $first->frames * $channels);
        $level->join($second->level, $second->frames * $channels);

        return new DecodeDigest($packets, $first->frames + $second->frames, $level->level(), $samples, $audio, 0);
    }

    /** @param  iterable<Packet>  $packets */
    private function write(iterable $packets): void
    {
        foreach ($packets as $packet) {
            $this->writer()->write($packet);
        }
    }

    private function made(SoundPipeline $pipeline): void
    {
        $this->progress->reached(Phase::Making, (int) min($this->plan->samples, $pipeline->done() / $this->last * $this->plan->samples),
            $this->plan->samples);
    }

    private function writer(): SoundWriter
    {
        return $this->writer ?? throw new \LogicException('Nothing is written before the file is begun.');
    }

    private function stretches(): StretchWriter
    {
        return $this->writer instanceof StretchWriter ? $this->writer
            : throw new \LogicException('Parts are joined only where the writer takes them as they are.');
    }
}
