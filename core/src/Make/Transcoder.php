<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Bytes\FileSink;
use Octavox\Core\Codec\Codecs;
use Octavox\Core\Codec\Encoder;
use Octavox\Core\Codec\StreamSplicer;
use Octavox\Core\Codec\StreamSplicers;
use Octavox\Core\Container\OutputFormat;
use Octavox\Core\Container\SoundWriter;
use Octavox\Core\Container\StretchWriter;
use Octavox\Core\Decode\SoundMissing;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Packet;
use Octavox\Core\Media\Phase;
use Octavox\Core\Media\Progress;
use Octavox\Core\Media\Track;
use Octavox\Core\Plan\Plan;
use Octavox\Core\Reading\OpenedSource;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\BlockSplitter;
use Octavox\Core\Sound\LevelMeter;
use Octavox\Core\Tag\Tags;

/** One sound that is decoded, shaped and encoded into a file; a long one by two processes, where its codec lets their parts be joined exactly. */
final class Transcoder
{
    private readonly ?StreamSplicer $joining;

    private readonly ?ParallelTail $later;

    private readonly Encoder $encoder;

    private readonly SoundWriter $writer;

    private readonly ?VerifyingDecoder $listener;

    private readonly LevelMeter $meter;

    private readonly \HashContext $packets;

    /** Of samples that must come out again; equal bytes of PCM are equal samples. */
    private readonly ?\HashContext $samples;

    /** Of the sound as it comes in; null where its level stays as it is. */
    private readonly ?LevelMeter $incoming;

    private bool $joined = false;

    /** What was decoded of the first part. */
    private ?DecodeDigest $heardFirst = null;

    /** XXH128 of the packets of the first part, and of the samples that became them. */
    private string $madeFirst = '';

    /** XXH128 of the packets of the later part. */
    private string $madeLater = '';

    private string $saidFirst = '';

    private int $done = 0;

    /** Samples after which everything is made. */
    private int $last;

    /** @param  string  $beside  path of a file that does not exist yet, for what a second process makes */
    public function __construct(
        private readonly Plan $plan,
        private readonly OpenedSource $source,
        private readonly Track $track,
        private readonly AudioFormat $from,
        private readonly ?LevelSetting $setting,
        private readonly OutputFormat $format,
        private readonly FileSink $sink,
        Tags $tags,
        private readonly Progress $progress,
        string $beside,
    ) {
        $this->last = max(1, $plan->samples);
        $this->joining = StreamSplicers::of($plan->audio);
        $writer = fn (Encoder $encoder): SoundWriter => $format->writer($sink, $encoder->audio(), $tags, $plan->samples, $encoder->delay(), $encoder->maker());
        if ($this->joining?->knowsItsPlace() === true) {
            $this->encoder = $this->joining->encoder();
            $this->writer = $writer($this->encoder);
            $this->later = $this->writer instanceof StretchWriter ? ParallelTail::start($plan, $from, $this->joining, $this->gain(), $sink->path, $sink->position()) : null;
            if ($this->later !== null) {
                $sink->needsNoChecksum();
            }
        } else {
            $this->later = $this->joining === null ? null : ParallelTail::start($plan, $from, $this->joining, $this->gain(), $beside);
            $this->encoder = $this->joining === null || $this->later === null ? Codecs::encoder($plan->audio, $plan->setting, $plan->samples) : $this->joining->encoder();
            $this->writer = $writer($this->encoder);
        }
        $audio = $this->encoder->audio();
        $this->listener = $plan->audio->codec !== Codec::Pcm && Codecs::canDecode($audio) ? VerifyingDecoder::start($audio, $this->encoder->delay(), $this->later->begins ?? $plan->samples) : null;
        $this->meter = new LevelMeter;
        $this->incoming = Shaping::changesLevel($from, $plan->sounds()[0], $this->gain()) ? new LevelMeter : null;
        $this->packets = hash_init('xxh128');
        $this->samples = $plan->audio->bitDepth > 0 && $plan->audio->codec !== Codec::Pcm ? hash_init('xxh128') : null;
    }

    public function run(): Written
    {
        $audio = match (true) {
            $this->joining === null || $this->later === null => $this->alone(),
            ! $this->writer instanceof StretchWriter => throw new \LogicException('Parts are joined only where the writer takes them as they are.'),
            $this->joining->hearsAll() => $this->hearingAll($this->joining, $this->writer, $this->later),
            default => $this->halved($this->joining, $this->writer, $this->later),
        };
        if ($this->format->presented($this->plan->audio, $this->done) !== $this->plan->samples) {
            throw SoundMissing::seconds($this->plan->source, ($this->plan->samples - $this->done) / $this->plan->audio->rate);
        }
        $this->writer->finish($this->plan->samples, $audio);

        $packets = hash_final($this->packets);
        // Of what stood in the result at once nobody has heard all in its order.
        $seams = $this->joined && $this->joining?->knowsItsPlace() === true ? [$this->later->begins ?? 0] : [];
        $samples = $this->samples === null ? null : hash_final($this->samples);

        return new Written($seams === [] ? $packets : $packets.' '.$this->later?->hash(), $this->sink->checksum(), $this->track->codedBytes, $this->meter->level(), $samples, $this->heard($audio, $packets, $samples), $this->setting, $seams, incoming: $this->incoming?->level());
    }

    private function alone(): AudioFormat
    {
        foreach ($this->shaped() as $block) {
            $this->hear($block);
            $this->write($this->encoder->encode($block));
        }
        $this->write($this->encoder->finish());

        return $this->encoder->audio();
    }

    /** Another process makes everything from the seam on, if it goes on exactly from what was made here. */
    private function halved(StreamSplicer $joining, StretchWriter $writer, ParallelTail $later): AudioFormat
    {
        $this->last = $later->begins;
        $lead = hash_init('xxh128');
        foreach (BlockSplitter::at($this->shaped(), [$later->begins - $later->lead, $later->begins]) as $block) {
            if ($this->done === $later->begins && $later->follows(hash_final($lead), $this->progress)) {
                $this->joined = true;
                break;
            }
            $this->last = $this->done >= $later->begins ? $this->plan->samples : $this->last;
            if ($this->done >= $later->begins - $later->lead && $this->done < $later->begins) {
                hash_update($lead, $block->bytes());
            }
            $this->hear($block);
            $this->write($this->encoder->encode($block));
        }
        $this->write($this->encoder->finish());
        if (! $this->joined) {
            return $this->encoder->audio();
        }
        $writer->copy($later->stretch());
        $later->tell($this->source->damage);
        $this->meter->join($later->level(), $later->frames() * $this->plan->audio->channels());
        $this->incoming?->join($later->incoming(), $later->frames() * $this->from->channels());
        $this->done += $later->frames();

        return $joining->audio($this->encoder->audio(), $later->audio(), $this->done);
    }

    /** Another process encodes everything from the seam on, if that is exactly what is heard here. */
    private function hearingAll(StreamSplicer $joining, StretchWriter $writer, ParallelTail $later): AudioFormat
    {
        $after = hash_init('xxh128');
        foreach (BlockSplitter::at($this->shaped(), [$later->begins]) as $block) {
            $before = $this->done < $later->begins;
            if ($this->done === $later->begins && $this->samples !== null) {
                $this->saidFirst = hash_final(hash_copy($this->samples));
            }
            if (! $before) {
                hash_update($after, $block->bytes());
            }
            $joining->hear($block);
            $this->hear($block);
            if ($before) {
                $this->write($this->encoder->encode($block));
            }
        }
        if ($later->isOf(hash_final($after), $this->progress)) {
            $this->write($this->encoder->finish());
            $this->heardFirst = $this->listener?->finish($this->encoder->audio(), $this->sign(...));
            $this->madeFirst = hash_final(hash_copy($this->packets));
            $this->joined = true;
            $this->append($writer, $later);

            return $joining->audio($this->encoder->audio(), $later->audio(), $this->done);
        }
        // From the begin, because a decoder that begins in the midst may give other samples than those that were heard.
        $at = 0;
        foreach (BlockSplitter::at($this->shaped(again: true), [$later->begins]) as $block) {
            if ($at >= $later->begins) {
                $this->write($this->encoder->encode($block));
            }
            $at += $block->frames;
            $this->progress->reached(Phase::Making, $this->done, $this->plan->samples);
        }
        $this->write($this->encoder->finish());

        return $joining->audio($this->encoder->audio(), $this->encoder->audio(), $this->done);
    }

    private function append(StretchWriter $writer, ParallelTail $later): void
    {
        $stretch = $later->stretch();
        $writer->copy($stretch);
        $own = hash_init('xxh128');
        foreach ($stretch->pieces() as $bytes) {
            hash_update($this->packets, $bytes);
            hash_update($own, $bytes);
        }
        $this->madeLater = hash_final($own);
    }

    /** What was decoded of the result while it was made: of both parts, where there are two. */
    private function heard(AudioFormat $audio, string $packets, ?string $samples): ?DecodeDigest
    {
        if (! $this->joined || $samples === null) {
            return $this->listener?->finish($audio, $this->sign(...));
        }
        $first = $this->heardFirst;
        $second = $this->later?->heard($this->madeLater);
        if ($first === null || $second === null || $first->packets !== $this->madeFirst || $first->samples !== $this->saidFirst) {
            return null;
        }
        $channels = $this->plan->audio->channels();
        $level = new LevelMeter;
        $level->join($first->level, $first->frames * $channels);
        $level->join($second->level, $second->frames * $channels);

        return new DecodeDigest($packets, $first->frames + $second->frames, $level->level(), $samples, $audio, 0);
    }

    private function hear(Block $block): void
    {
        $this->meter->measure($block);
        if ($this->samples !== null) {
            hash_update($this->samples, $block->bytes());
        }
        $this->done += $block->frames;
        $this->progress->reached(Phase::Making, (int) min($this->plan->samples, $this->done / $this->last * $this->plan->samples), $this->plan->samples);
    }

    /** @param  iterable<Packet>  $packets */
    private function write(iterable $packets): void
    {
        foreach ($packets as $packet) {
            $this->writer->write($packet);
            $this->listener?->take($packet);
            hash_update($this->packets, $packet->data);
        }
    }

    private function sign(): void
    {
        $this->progress->reached(Phase::Making, $this->plan->samples, $this->plan->samples);
    }

    private function gain(): float
    {
        return $this->setting?->gain->factor() ?? 1.0;
    }

    /** @return iterable<Block> */
    private function shaped(bool $again = false): iterable
    {
        return Shaping::of($this->source, $this->track, $this->from, $this->plan->sounds()[0], $this->plan->moment, $this->plan->lasts, $this->gain(), incoming: $again ? null : $this->incoming);
    }
}
