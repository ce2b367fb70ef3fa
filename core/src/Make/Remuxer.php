<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Bytes\FileBytes;
use Octavox\Core\Bytes\FileSink;
use Octavox\Core\Codec\Codecs;
use Octavox\Core\Codec\Encoder;
use Octavox\Core\Container\Video\AttachmentSource;
use Octavox\Core\Container\Video\AuxiliarySource;
use Octavox\Core\Container\Video\AuxiliaryTrack;
use Octavox\Core\Container\Video\PictureSample;
use Octavox\Core\Container\Video\PictureStream;
use Octavox\Core\Container\Video\StreamedPictures;
use Octavox\Core\Container\Video\VideoOutputFormat;
use Octavox\Core\Container\Video\VideoSound;
use Octavox\Core\Container\Video\VideoSource;
use Octavox\Core\Container\Video\VideoWriter;
use Octavox\Core\Decode\SoundMissing;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Packet;
use Octavox\Core\Media\Phase;
use Octavox\Core\Media\Progress;
use Octavox\Core\Media\Segment;
use Octavox\Core\Media\Track;
use Octavox\Core\Plan\Action;
use Octavox\Core\Plan\CannotPlan;
use Octavox\Core\Plan\Plan;
use Octavox\Core\Plan\PlannedSound;
use Octavox\Core\Reading\OpenedSource;
use Octavox\Core\Sound\LevelMeter;

/** Writes a film: pictures copied, each sound track copied or encoded, in the order of time. */
final class Remuxer
{
    /** Pictures that are looked at to find which is shown first. */
    private const LOOK_AHEAD = 24;

    /** @var list<\HashContext> */
    private array $hashes = [];

    /** @var list<?\HashContext> of samples that must come out again */
    private array $samples = [];

    /** @var list<?LevelMeter> */
    private array $meters = [];

    /** @var array<int, int> samples that the copied packets of each sound hold */
    private array $held = [];

    /** @var array<int, int> gaps that are kept open in each sound */
    private array $gaps = [];

    /** @var array<int, ?LevelMeter> of each sound as it comes in, where its level is changed */
    private array $incoming = [];

    /** @var list<AuxiliaryCopy> */
    private array $companions = [];

    public function __construct(private readonly Progress $progress)
    {
    }

    public function write(Plan $plan, OpenedSource $source, VideoOutputFormat $format, FileSink $sink): WrittenVideo
    {
        $media = $source->media;
        $track = $source->track((int) $plan->picture);
        $stream = $media instanceof VideoSource && $track !== null ? $media->pictureStream($track) : null;
        // A plan made long ago may know the picture by another name.
        if ($stream === null || $track === null || ! $media instanceof VideoSource || ! $format->carriesPicture($stream->codec)) {
            throw CannotPlan::picture($plan->source, $track->picture->label ?? 'of no form', $format->label());
        }
        $pictures = self::generator($media->pictures($track));
        $ahead = [];
        while (count($ahead) < self::LOOK_AHEAD && $pictures->valid()) {
            $ahead[] = $pictures->current();
            $pictures->next();
        }
        $first = $stream->firstShown ?? ($ahead === [] ? 0 : min(array_map(fn (PictureSample $sample): int => $sample->pts, $ahead)));
        [$sounds, $packets] = $this->sounds($plan, $source);
        $this->companions = self::companions($plan, $source);
        $tags = $plan->tags->withCover($media->tags()->cover);
        $writer = $format->writer($sink, $stream, $first, $sounds, $tags, $media->chapters(), $track->seconds(), array_map(fn (AuxiliaryCopy $copy): AuxiliaryTrack => $copy->companion, $this->companions), $media instanceof AttachmentSource ? $media->attachments() : []);
        // Pictures that stand in the file as they are copied by the system itself; what they are another process finds meanwhile.
        $summing = ($ahead[0] ?? null)?->data->source instanceof FileBytes ? Summing::begin(fn (callable $sign): string => PictureSum::of($media, $track, $sign), $plan->predictedBytes) : null;
        $sum = new PictureSum;
        $this->mux($writer, $stream, (function () use ($ahead, $pictures): \Generator {
            yield from $ahead;
            for (; $pictures->valid(); $pictures->next()) {
                yield $pictures->current();
            }
        })(), $sounds, $packets, $plan, $summing === null ? $sum : null);
        $writer->finish();

        return new WrittenVideo(
            $summing ?? $sum->result(),
            array_map(fn (VideoSound $sound): int => $sound->late, $sounds),
            array_map(fn (\HashContext $hash, ?\HashContext $samples, ?LevelMeter $meter, int $index): Written => new Written(hash_final($hash), null, $media->source()->size(), $meter?->level(), $samples === null ? null : hash_final($samples), held: $this->held[$index] ?? null, gaps: $this->gaps[$index] ?? 0, incoming: ($this->incoming[$index] ?? null)?->level()), $this->hashes, $this->samples, $this->meters, array_keys($this->hashes)),
            array_map(fn (AuxiliaryCopy $copy): string => $copy->written(), $this->companions),
            $media instanceof StreamedPictures ? $source : null,
        );
    }

    /**
     * @param  list<VideoSound>  $sounds
     * @param  list<\Generator<int, Packet>>  $packets
     * @param  iterable<PictureSample>  $pictures
     */
    private function mux(VideoWriter $writer, PictureStream $stream, iterable $pictures, array $sounds, array $packets, Plan $plan, ?PictureSum $sum): void
    {
        $times = array_map(fn (VideoSound $sound): float => $sound->late / $sound->audio->rate, $sounds);
        $mark = 0.0;
        foreach ($pictures as $sample) {
            $time = $sample->dts / $stream->timescale;
            if ($time >= $mark) {
                $this->sound($writer, $sounds, $packets, $times, $time + $writer->step());
                $mark = $time + $writer->step();
                $this->progress->reached(Phase::Making, (int) min($plan->samples, $time * $plan->audio->rate), $plan->samples);
            }
            $writer->picture($sample);
            $sum?->add($sample);
        }
        $this->sound($writer, $sounds, $packets, $times, INF);
    }

    /**
     * @param  list<VideoSound>  $sounds
     * @param  list<\Generator<int, Packet>>  $packets
     * @param  array<int, float>  $times  seconds up to which each sound is written
     */
    private function sound(VideoWriter $writer, array $sounds, array $packets, array &$times, float $until): void
    {
        foreach ($this->companions as $index => $copy) {
            for (; $copy->next() <= $until && $copy->samples->valid(); $copy->samples->next()) {
                $writer->companion($index, $copy->samples->current());
            }
        }
        foreach ($packets as $index => $generator) {
            while ($generator->valid() && $times[$index] <= $until) {
                $packet = $generator->current();
                $writer->sound($index, $packet);
                hash_update($this->hashes[$index], $packet->data);
                $times[$index] += $packet->length / $sounds[$index]->audio->rate;
                $generator->next();
            }
        }
    }

    /** @return list<AuxiliaryCopy> */
    private static function companions(Plan $plan, OpenedSource $source): array
    {
        $copies = [];
        foreach ($plan->companions as $number) {
            $track = $source->track($number);
            $copies[] = ($source->media instanceof AuxiliarySource && $track !== null ? AuxiliaryCopy::of($source->media, $track, $source->picture()->picture->startOffset ?? 0.0) : null) ?? throw SourceChanged::track($plan->source);
        }

        return $copies;
    }

    /** @return array{list<VideoSound>, list<\Generator<int, Packet>>} */
    private function sounds(Plan $plan, OpenedSource $source): array
    {
        $sounds = [];
        $packets = [];
        foreach ($plan->sounds() as $planned) {
            $track = $source->track($planned->track);
            $audio = $track?->sound;
            if ($track === null || $audio === null) {
                throw SourceChanged::track($plan->source);
            }
            $this->hashes[] = hash_init('xxh128');
            $moment = (int) round(($source->picture()->picture->startOffset ?? 0.0) * $audio->rate);
            if ($planned->action === Action::Kept) {
                $segments = $track->timeline->from($moment);
                $late = $segments[0]->from === null ? $segments[0]->length : 0;
                $segment = $segments[count($segments) - 1];
                $generator = self::generator($this->kept($source, $track, $audio, $segment, count($this->hashes) - 1));
                $sounds[] = new VideoSound($audio, $late, $audio->codec === Codec::Pcm ? 0 : (int) $segment->from, $planned->samples, $track->language, $track->name, $generator->valid() ? $generator->current()->data : '');
                $this->samples[] = null;
                $this->meters[] = null;
            } else {
                $encoder = Codecs::encoder($planned->audio, $planned->setting, $planned->samples);
                $this->samples[] = $planned->audio->bitDepth > 0 ? hash_init('xxh128') : null;
                $this->meters[] = new LevelMeter;
                $generator = self::generator($this->remade($plan, $source, $track, $audio, $planned, $encoder, $moment, count($this->meters) - 1));
                $sounds[] = new VideoSound($encoder->audio(), 0, $encoder->delay(), $planned->samples, $track->language, $planned->shape->label === '' ? $track->name : $planned->shape->label, '');
            }
            $packets[] = $generator;
        }

        return [$sounds, $packets];
    }

    /**
     * The packets as they are; one before a gap lasts until the next, so that the gap stays open.
     *
     * @return iterable<Packet>
     */
    private function kept(OpenedSource $source, Track $track, AudioFormat $audio, Segment $segment, int $index): iterable
    {
        if ($audio->codec === Codec::Pcm) {
            yield from SegmentPackets::of($source->media, $track, $segment);

            return;
        }

        $this->held[$index] = -(int) $segment->from;
        $this->gaps[$index] = 0;
        foreach (OpenGaps::of($source->media->packets($track, 0, PHP_INT_MAX >> 2), $audio->rate, function () use ($index): void {
            $this->gaps[$index]++;
        }) as $packet) {
            $this->held[$index] += $packet->length;
            yield $packet;
        }
    }

    /** @return iterable<Packet> */
    private function remade(Plan $plan, OpenedSource $source, Track $track, AudioFormat $audio, PlannedSound $planned, Encoder $encoder, int $moment, int $index): iterable
    {
        $done = 0;
        $gain = LevelSetting::of($source, $track, $audio, $planned, $moment, null, $this->progress)?->gain->factor() ?? 1.0;
        $this->incoming[$index] = Shaping::changesLevel($audio, $planned, $gain) ? new LevelMeter : null;
        foreach (Shaping::of($source, $track, $audio, $planned, $moment, null, $gain, incoming: $this->incoming[$index]) as $block) {
            $this->meters[$index]?->measure($block);
            if ($this->samples[$index] !== null) {
                hash_update($this->samples[$index], $block->bytes());
            }
            $done += $block->frames;
            yield from $encoder->encode($block);
        }
        yield from $encoder->finish();
        if ($done !== $planned->samples) {
            throw SoundMissing::seconds($plan->source, ($planned->samples - $done) / $planned->audio->rate);
        }
    }

    /**
     * @template T
     *
     * @param  iterable<T>  $items
     * @return \Generator<int, T>
     */
    private static function generator(iterable $items): \Generator
    {
        foreach ($items as $item) {
            yield $item;
        }
    }
}
