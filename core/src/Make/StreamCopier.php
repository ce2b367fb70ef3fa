<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileSink;
use Octavox\Core\Codec\Codecs;
use Octavox\Core\Codec\PacketTrimmer;
use Octavox\Core\Codec\PlainTrimmer;
use Octavox\Core\Container\Demuxer;
use Octavox\Core\Container\EncoderNamed;
use Octavox\Core\Container\OutputFormat;
use Octavox\Core\Container\RunSource;
use Octavox\Core\Container\RunWriter;
use Octavox\Core\Container\SoundWriter;
use Octavox\Core\Container\StretchWriter;
use Octavox\Core\Decode\SoundMissing;
use Octavox\Core\Failure;
use Octavox\Core\Make\Pipeline\SoundInput;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Packet;
use Octavox\Core\Media\Phase;
use Octavox\Core\Media\Progress;
use Octavox\Core\Media\Segment;
use Octavox\Core\Media\Track;
use Octavox\Core\Plan\KeptCut;
use Octavox\Core\Plan\SoundPlan;
use Octavox\Core\Tag\Tags;

/** One sound whose packets are copied into a file as they are. */
final class StreamCopier
{
    private readonly \HashContext $hash;

    /** Of what was copied by the system itself. */
    private ?Summing $sum = null;

    private int $total = 0;

    /** Decoded samples that are left out at the start. */
    private int $skipped = 0;

    /** Gaps that are kept open. */
    private int $gaps = 0;

    private readonly SoundPlan $plan;

    private readonly Demuxer $media;

    private readonly Track $track;

    public function __construct(
        private readonly SoundInput $input,
        private readonly OutputFormat $format,
        private readonly FileSink $sink,
        private readonly Tags $tags,
        private readonly Progress $progress,
    ) {
        $this->plan = $input->plan;
        $this->media = $input->source->media;
        $this->track = $input->track();
        $this->hash = hash_init('xxh128');
        // The packets have a sum of their own, and they are nearly all of the file.
        $sink->needsNoChecksum();
    }

    /**
     * @param  int  $bytes  that will be copied, about
     *
     * @throws Failure
     */
    public function run(int $bytes): Written
    {
        $audio = $this->plan->audio->codec === Codec::Pcm ? $this->plan->audio : $this->track->sound ?? $this->plan->audio;
        $cut = $this->plan->shape->kept;
        match (true) {
            $audio->codec === Codec::Pcm => $this->samples($audio, $bytes),
            $cut !== null => $this->cut($audio, $cut),
            default => $this->whole($audio, $bytes),
        };

        return new Written($this->sum ?? hash_final($this->hash), $this->sink->checksum(),
            copied: new Copied($this->total - $this->skipped, $this->gaps));
    }

    /**
     * PCM, to the sample.
     *
     * @throws SoundMissing
     * @throws BytesMissing
     * @throws Failure
     */
    private function samples(AudioFormat $audio, int $total): void
    {
        $writer = $this->writer($audio, 0);
        $segments = $this->input->segments();
        $stretches = $writer instanceof StretchWriter ? PacketSum::stretches($this->media, $this->track, $segments) : null;
        if ($writer instanceof StretchWriter && $stretches !== null) {
            [$media, $track] = [$this->media, $this->track];
            $this->sum = Summing::begin(static fn (callable $sign): string => PacketSum::compute($media, $track, $segments, $sign), $total);
            $bytes = 0;
            foreach ($stretches as $stretch) {
                $writer->copy($stretch);
                $bytes += $stretch->length;
                $this->made(intdiv($bytes, $audio->frameBytes()) - $this->total);
            }
        } else {
            foreach ($segments as $segment) {
                foreach (SegmentPackets::read($this->media, $this->track, $segment) as $packet) {
                    $this->write($writer, $packet);
                }
            }
        }
        if ($this->total !== $this->plan->samples) {
            throw SoundMissing::seconds($this->input->path(), ($this->plan->samples - $this->total) / $this->plan->audio->rate);
        }
        $writer->finish($this->plan->samples, $audio);
    }

    /** Packets of which each may depend on those before: all of them. */
    private function whole(AudioFormat $audio, int $total): void
    {
        $segments = $this->input->segments();
        $this->skipped = max(0, $segments[0]->from ?? 0);
        $writer = $this->writer($audio, $segments[0]->from ?? -1);
        $runs = $writer instanceof RunWriter && $this->media instanceof RunSource ? $this->media->runs($this->track) : null;
        if ($writer instanceof RunWriter && $runs !== null) {
            [$media, $track] = [$this->media, $this->track];
            $this->sum = Summing::begin(static fn (callable $sign): string => PacketSum::ofAll($media, $track, [], $sign), $total);
            foreach ($runs as $run) {
                $writer->writeRun($run);
                $this->made($run->length());
            }
        } else {
            $this->packets($writer, $audio, $this->presented($segments));
        }
        $writer->finish($this->plan->samples, $audio);
    }

    /**
     * All packets; where each stands for itself without those that begin behind the end of what is presented, as one that lasts nothing
     * does.
     *
     * @param  list<Segment>  $segments
     * @return iterable<Packet>
     */
    private function presented(array $segments): iterable
    {
        $last = $segments[count($segments) - 1] ?? null;
        $isAlone = in_array($this->track->sound?->codec, [Codec::Flac, Codec::Alac], true) && $last?->from !== null;
        $until = $isAlone ? $last->from + $last->length : PHP_INT_MAX >> 2;
        foreach ($this->media->packets($this->track, 0, $until) as $packet) {
            if ($packet->start < $until) {
                yield $packet;
            }
        }
    }

    private function cut(AudioFormat $audio, KeptCut $cut): void
    {
        $cutting = Codecs::trimmer($audio->codec) ?? new PlainTrimmer;
        $audio = $cutting->audio($audio, $cut->until - $cut->from);
        $writer = $this->writer($audio, $cut->skip);
        $this->packets($writer, $audio, self::within($this->media->packets($this->track, $cut->from, $cut->until), $cut, $cutting));
        $writer->finish($this->plan->samples, $audio);
    }

    /** @param  iterable<Packet>  $packets */
    private function packets(SoundWriter $writer, AudioFormat $audio, iterable $packets): void
    {
        $found = function (Packet $before, int $gap) use ($audio): void {
            $this->gaps++;
            if (! $this->format->capabilities()->holdsGaps) {
                throw GapInSound::seconds($this->input->path(), ($before->start + $before->length) / $audio->rate, $gap / $audio->rate,
                    $this->format->label());
            }
        };
        foreach (OpenGaps::close($packets, $audio->rate, $found) as $packet) {
            $this->write($writer, $packet);
        }
    }

    /**
     * Without the packets that only a decoder would need.
     *
     * @param  iterable<Packet>  $packets
     * @return iterable<Packet>
     */
    private static function within(iterable $packets, KeptCut $cut, PacketTrimmer $cutting): iterable
    {
        foreach ($packets as $packet) {
            if ($packet->start >= $cut->from && $packet->start < $cut->until) {
                yield $cutting->packet($packet);
            }
        }
    }

    private function write(SoundWriter $writer, Packet $packet): void
    {
        $writer->write($packet);
        hash_update($this->hash, $packet->data);
        $this->made($packet->length);
    }

    private function made(int $samples): void
    {
        $this->total += $samples;
        $this->progress->reached(Phase::Making, min($this->total, $this->plan->samples), $this->plan->samples);
    }

    /** @param  int  $skip  decoded samples that a player leaves out at the start, -1 where that is not known */
    private function writer(AudioFormat $audio, int $skip): SoundWriter
    {
        return $this->format->writer($this->sink, $audio, $this->tags, $this->plan->samples, $skip,
            $this->media instanceof EncoderNamed ? $this->media->encoderName() : '');
    }
}
