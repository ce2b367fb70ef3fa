<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileBytes;
use Octavox\Core\Bytes\FileSink;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Codec\Codecs;
use Octavox\Core\Container\Video\AttachmentSource;
use Octavox\Core\Container\Video\AuxiliarySource;
use Octavox\Core\Container\Video\AuxiliaryTrack;
use Octavox\Core\Container\Video\PictureSample;
use Octavox\Core\Container\Video\StreamedPictures;
use Octavox\Core\Container\Video\VideoOutputFormat;
use Octavox\Core\Container\Video\VideoParts;
use Octavox\Core\Container\Video\VideoSound;
use Octavox\Core\Container\Video\VideoSource;
use Octavox\Core\Container\Video\VideoWriter;
use Octavox\Core\Decode\SoundMissing;
use Octavox\Core\Failure;
use Octavox\Core\Make\Pipeline\SoundInput;
use Octavox\Core\Make\Pipeline\SoundPipeline;
use Octavox\Core\Media\Packet;
use Octavox\Core\Media\Phase;
use Octavox\Core\Media\Progress;
use Octavox\Core\Plan\Plan;
use Octavox\Core\Plan\Violations;
use Octavox\Core\Reading\OpenedSource;

/** Muxes a video: pictures copied, each sound copied or out of its own pipeline, in the order of time. */
final class Remuxer
{
    /** Pictures that are looked at to find which is shown first. */
    private const LOOK_AHEAD = 24;

    /** @var list<VideoSound> */
    private array $sounds = [];

    /** @var list<\Generator<int, Packet>> of each sound */
    private array $packets = [];

    /** @var list<\Closure(): Written> what each sound must be found to be, once all its packets are written */
    private array $written = [];

    /** @var list<float> seconds up to which each sound is written */
    private array $times = [];

    /** @var list<AuxiliaryCopy> */
    private array $auxiliaries = [];

    /** @param  list<SoundInput>  $inputs  of each sound of the plan */
    public function __construct(private readonly Plan $plan, private readonly OpenedSource $source, private readonly array $inputs,
        private readonly Progress $progress) {}

    /** @throws Failure */
    public function write(VideoOutputFormat $format, FileSink $sink): WrittenVideo
    {
        $media = $this->source->media;
        $track = $this->source->track($this->plan->picture->track ?? 0);
        $stream = $media instanceof VideoSource && $track !== null ? $media->pictureStream($track) : null;
        // A plan made long ago may know the picture by another name.
        if ($stream === null || $track === null || ! $media instanceof VideoSource || ! $format->carriesPicture($stream->codec)) {
            throw (new Violations\Picture(picture: $track->picture->label ?? 'of no known format', container: $format->label()))->at($this
                ->plan->source->path);
        }
        $pictures = self::generator($media->pictures($track));
        $ahead = [];
        while (count($ahead) < self::LOOK_AHEAD && $pictures->valid()) {
            $ahead[] = $pictures->current();
            $pictures->next();
        }
        $first = $stream->firstShown ?? ($ahead === [] ? 0 : min(array_map(fn (PictureSample $sample): int => $sample->pts, $ahead)));
        array_map($this->addSound(...), $this->inputs);
        $this->auxiliaries = $this->auxiliaries();
        $tags = $this->plan->tags->withCover(Maker::cover($this->plan, $media->tags()))
            ->withRecorded($media->tags()->recorded);
        $tracks = array_map(fn (AuxiliaryCopy $copy): AuxiliaryTrack => $copy->auxiliary, $this->auxiliaries);
        $attachments = $media instanceof AttachmentSource ? $media->attachments() : [];
        $parts = new VideoParts($stream, $first, $this->sounds, $tags, $media->chapters(), $track->seconds(), $tracks, $attachments);
        $writer = $format->writer($sink, $parts);
        // Pictures that stand in the file as they are copied by the system itself; what they are another process finds meanwhile.
        $isInFile = ($ahead[0] ?? null)?->data->source instanceof FileBytes;
        $summing = $isInFile ? Summing::begin(fn (callable $sign): string => PictureSum::compute($media, $track, $sign),
            $this->plan->target->predictedBytes) : null;
        $sum = new PictureSum;
        $all = (function () use ($ahead, $pictures): \Generator {
            yield from $ahead;
            for (; $pictures->valid(); $pictures->next()) {
                yield $pictures->current();
            }
        })();
        $this->mux($writer, $stream->timescale, $all, $summing === null ? $sum : null);
        $writer->finish();

        return new WrittenVideo(
            $summing ?? $sum->result(),
            array_map(fn (VideoSound $sound): int => $sound->late, $this->sounds),
            array_map(fn (\Closure $written): Written => $written(), $this->written),
            array_map(fn (AuxiliaryCopy $copy): string => $copy->written(), $this->auxiliaries),
            $media instanceof StreamedPictures ? $this->source : null,
        );
    }

    /**
     * @param  int  $timescale  ticks a second of the pictures
     * @param  iterable<PictureSample>  $pictures
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function mux(VideoWriter $writer, int $timescale, iterable $pictures, ?PictureSum $sum): void
    {
        $mark = 0.0;
        foreach ($pictures as $sample) {
            $time = $sample->dts / $timescale;
            if ($time >= $mark) {
                $mark = $time + $writer->step();
                $this->muxSounds($writer, $mark);
                $this->progress->reached(Phase::Making, (int) min($this->plan->length(), $time * $this->plan->lengthRate()),
                    $this->plan->length());
            }
            $writer->picture($sample);
            $sum?->add($sample);
        }
        $this->muxSounds($writer, INF);
    }

    /** @param  float  $until  seconds */
    private function muxSounds(VideoWriter $writer, float $until): void
    {
        foreach ($this->auxiliaries as $index => $copy) {
            for (; $copy->next() <= $until && $copy->samples->valid(); $copy->samples->next()) {
                $writer->auxiliary($index, $copy->samples->current());
            }
        }
        foreach ($this->packets as $index => $packets) {
            while ($packets->valid() && $this->times[$index] <= $until) {
                $packet = $packets->current();
                $writer->sound($index, $packet);
                $this->times[$index] += $packet->length / $this->sounds[$index]->audio->rate;
                $packets->next();
            }
        }
    }

    /**
     * @return list<AuxiliaryCopy>
     *
     * @throws SourceChanged
     */
    private function auxiliaries(): array
    {
        $media = $this->source->media;
        $starts = $this->source->picture()->picture->startOffset ?? 0.0;

        return array_map(function (int $number) use ($media, $starts): AuxiliaryCopy {
            $track = $this->source->track($number);
            $copy = $media instanceof AuxiliarySource && $track !== null ? AuxiliaryCopy::of($media, $track, $starts) : null;

            return $copy ?? throw SourceChanged::track($this->plan->source->path);
        }, $this->plan->auxiliaries);
    }

    /**
     * @throws Failure
     */
    private function addSound(SoundInput $input): void
    {
        $plan = $input->plan;
        $language = $input->track()->language;
        if ($plan->isKept()) {
            $copied = new CopiedSound($input);
            $packets = self::generator($copied->packets());
            $first = $packets->valid() ? $packets->current()->data : '';
            $sound = new VideoSound($input->from, $copied->late(), $copied->skip(), $plan->samples, $language,
                $input->track()->name, $first);
            $this->written[] = $copied->written(...);
        } else {
            $encoder = Codecs::encoder($plan->audio, $plan->rateControl, $plan->samples, $plan->settings);
            $pipeline = new SoundPipeline($input, $encoder, LevelSetting::of($input, $this->progress), $this->progress);
            $packets = self::generator($this->whole($pipeline));
            $sound = new VideoSound($encoder->audio(), 0, $encoder->delay(), $plan->samples, $language,
                $plan->shape->label === '' ? $input->track()->name : $plan->shape->label, '');
            $this->written[] = fn (): Written => new Written($pipeline->packetSum(),
                encoded: $pipeline->encoded($pipeline->digest($sound->audio)));
        }
        $this->sounds[] = $sound;
        $this->packets[] = $packets;
        $this->times[] = $sound->late / $sound->audio->rate;
    }

    /**
     * @return iterable<Packet>
     *
     * @throws Failure
     */
    private function whole(SoundPipeline $pipeline): iterable
    {
        yield from $pipeline->packets();
        $plan = $pipeline->input->plan;
        if ($pipeline->done() !== $plan->samples) {
            throw SoundMissing::seconds($this->plan->source->path, ($plan->samples - $pipeline->done()) / $plan->audio->rate);
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
