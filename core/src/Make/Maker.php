<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileSink;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\FileUnwritable;
use Octavox\Core\Codec\Pcm\Repacking;
use Octavox\Core\Container\OutputFormat;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Container\Video\VideoOutputs;
use Octavox\Core\Decode\SoundMissing;
use Octavox\Core\Failure;
use Octavox\Core\Make\Pipeline\SoundInput;
use Octavox\Core\Media\NoProgress;
use Octavox\Core\Media\Packet;
use Octavox\Core\Media\Phase;
use Octavox\Core\Media\Progress;
use Octavox\Core\Media\Segment;
use Octavox\Core\Media\SourceKind;
use Octavox\Core\Order\IfExists;
use Octavox\Core\Plan\Plan;
use Octavox\Core\Plan\ResultChapters;
use Octavox\Core\Plan\SoundPlan;
use Octavox\Core\Plan\Violations;
use Octavox\Core\Reading\OpenedSource;
use Octavox\Core\Reading\Opener;
use Octavox\Core\Reading\Stated;
use Octavox\Core\Sound\Time;
use Octavox\Core\Tag\Cover;
use Octavox\Core\Tag\Tags;

/** Carries out one plan: packets in, kept or decoded, filtered and encoded, packets out, verified, placed. */
final class Maker
{
    public function __construct(private readonly Progress $progress = new NoProgress) {}

    /**
     * @param  string  $token  makes the temporary name unique
     * @param  ?Originals  $originals  files that no result may replace; the plan's own source where none are named
     * @param  ?\Closure(Placing): void  $placing  told of the finished file before it gets its name
     * @param  list<string>  $bins  folders, of which one on the drive of the result takes the file whose place it takes
     *
     * @throws Failure and leaves nothing behind
     */
    public function make(Plan $plan, string $token, ?Originals $originals = null, ?\Closure $placing = null,
        array $bins = []): Result
    {
        $began = hrtime(true);
        $workplace = new Workplace($plan->target->folder, $originals ?? Originals::of([$plan->source->path]),
            ReplacedFiles::on($bins, $plan->target->folder));
        if ($plan->target->ifExists === IfExists::Skip && $workplace->has($plan->name())) {
            return Result::skipped($plan);
        }
        if ($plan->target->ifExists === IfExists::Ask && $workplace->has($plan->name())) {
            throw NameTaken::at($plan->path());
        }
        $source = self::open($plan);
        $workplace->prepare();
        $workplace->sweep();
        $this->checkSpace($plan);
        $temporary = $workplace->temporary($token);
        try {
            $sink = FileSink::create($temporary);
            $receipt = $this->carryOut($plan, $source, $sink, $workplace->beside($token));
            $this->progress->reached(Phase::Flushing, $plan->length(), $plan->length());
            $sink->flush();
            $sink->close();
            $receipt = $receipt->withNotes($source->damage->notes($source->track($plan->sound()->track ?? 0)->sound->rate ?? 1));
            $done = fn (string $path): Result => Result::done($plan, $path, $receipt, (hrtime(true) - $began) / 1e9);
            if ($placing !== null) {
                $placing(Placing::of($temporary, $done($plan->path())));
            }
            $path = $workplace->place($temporary, $plan->name(), $plan->target->ifExists);
        } finally {
            if (is_file($temporary)) {
                unlink($temporary);
            }
        }

        return $path === null ? Result::skipped($plan) : $done($path);
    }

    /** @throws Failure */
    private static function open(Plan $plan): OpenedSource
    {
        if ($plan->source->kind === SourceKind::Folder) {
            throw (new Violations\Stopped(says: 'Folders cannot be made into anything here yet.', remedy: 'Take one of its files.'))
                ->at($plan->source->path);
        }
        $source = Opener::open($plan->source->path, Stated::parse($plan->source->openedAs()));
        $size = $source->media->source()->size();

        // Readings of former releases counted a sheet without the files that it names.
        $isAsBefore = $size === $plan->source->bytes
            || $source->media->container() === 'cue' && @filesize($plan->source->path) === $plan->source->bytes;

        return $isAsBefore ? $source : throw SourceChanged::size($plan->source->path, $plan->source->bytes, $size);
    }

    /** @throws Failure */
    private function carryOut(Plan $plan, OpenedSource $source, FileSink $sink, string $beside): Receipt
    {
        $inputs = array_map(fn (SoundPlan $sound): SoundInput => SoundInput::of($source, $sound), $plan->sounds);
        if ($plan->picture === null) {
            $written = $this->write($plan, $inputs[0], $sink, $beside);
            $this->startWriteback($plan, $sink);

            return (new Verifier($plan, $this->progress))
                ->verify($sink->path, $written, array_sum(array_map(fn ($track): int => $track->codedBytes, $inputs[0]->tracks)));
        }
        $format = VideoOutputs::named($plan->target->container)
            ?? throw (new Violations\NoFormat(format: $plan->target->container))->at($plan->source->path);
        $written = (new Remuxer($plan, $source, $inputs, $this->progress))->write($format, $sink);
        $this->startWriteback($plan, $sink);

        return (new VideoVerifier($plan, $this->progress))->verify($sink->path, $written);
    }

    /**
     * It is read back while the system is still writing it to the disk.
     *
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function startWriteback(Plan $plan, FileSink $sink): void
    {
        $sink->startWriteback();
        $this->progress->reached(Phase::Verifying, 0, $plan->length());
    }

    /** @throws NoSpace */
    private function checkSpace(Plan $plan): void
    {
        $free = @disk_free_space($plan->target->folder);
        if ($free !== false && $free < $plan->target->predictedBytes) {
            throw NoSpace::before($plan->target->folder, $plan->target->predictedBytes, $free);
        }
    }

    /** @throws Failure */
    private function write(Plan $plan, SoundInput $input, FileSink $sink, string $beside): Written
    {
        $format = Outputs::named($plan->target->container) ?? throw (new Violations\NoFormat(format: $plan->target->container))
            ->at($plan->source->path);
        $tags = self::tags($plan, $input);
        if ($input->plan->isKept()) {
            return (new StreamCopier($input, $format, $sink, $tags, $this->progress))->run($plan->target->predictedBytes);
        }
        $isRepacked = ! $input->plan->shape->changesSamples() && Repacking::isNeeded($input->from, $input->plan->audio)
            && Segment::silent($input->segments()) === 0;

        return $isRepacked ? $this->repack($input, $format, $sink, $tags)
            : (new Transcoder($input, $plan->target, $format, $sink, $tags, $this->progress))->run($beside);
    }

    /**
     * The picture that is asked for, else that of the source.
     *
     * @throws Failure where it cannot be read
     */
    public static function cover(Plan $plan, Tags $own): ?Cover
    {
        return $plan->cover === null ? $own->cover : ($plan->cover === '' ? null : CoverFile::read($plan->cover));
    }

    /**
     * A plan does not hold the cover itself, nor the time of day at which the recording began.
     *
     * @throws Failure
     */
    private static function tags(Plan $plan, SoundInput $input): Tags
    {
        $sound = $input->plan;
        $own = $input->source->media->tags();
        $rate = max(1, $input->from->rate);
        $whole = Segment::total($input->track()->timeline->from($sound->presentationStart, $sound->duration));
        $chapters = ResultChapters::place($input->source->media->chapters(), $rate, $sound->presentationStart, $whole, $sound->shape);
        $tags = $sound->shape->level === null && $sound->shape->routing === null ? $plan->tags : $plan->tags->withoutLevels();
        $reference = $own->timeReference === null ? null
            : Time::rescale($own->timeReference + max(0, $sound->presentationStart), $rate, $sound->audio->rate);

        return $tags->withCover(self::cover($plan, $own))->withRecorded($own->recorded)->withBroadcast($tags->broadcast ?? $own->broadcast)
            ->withLabel($sound->shape->label)
            ->withChapters($chapters, $sound->samples / $sound->audio->rate)->withTimeReference($reference);
    }

    /**
     * Samples of more than 24 bits, which floating point would round.
     *
     * @throws Failure
     */
    private function repack(SoundInput $input, OutputFormat $format, FileSink $sink, Tags $tags): Written
    {
        $plan = $input->plan;
        $writer = $format->writer($sink, $plan->audio, $tags, $plan->samples, 0, 'Octavox');
        $repacking = new Repacking($input->from, $plan->audio);
        $hash = hash_init('xxh128');
        $done = 0;
        foreach ($input->segments() as $segment) {
            foreach (SegmentPackets::read($input->source->media, $input->track(), $segment) as $packet) {
                $packed = new Packet($repacking->repack($packet->data), $done, $packet->length);
                $writer->write($packed);
                hash_update($hash, $packed->data);
                $done += $packet->length;
                $this->progress->reached(Phase::Making, $done, $plan->samples);
            }
        }
        if ($done !== $plan->samples) {
            throw SoundMissing::seconds($input->path(), ($plan->samples - $done) / $plan->audio->rate);
        }
        $writer->finish($plan->samples, $plan->audio);

        return new Written(hash_final($hash), $sink->checksum());
    }
}
