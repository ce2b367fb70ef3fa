<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Bytes\FileSink;
use Octavox\Core\Codec\Pcm\Repacking;
use Octavox\Core\Container\OutputFormat;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Container\Video\VideoOutputs;
use Octavox\Core\Decode\SoundMissing;
use Octavox\Core\Failure;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\NoProgress;
use Octavox\Core\Media\Packet;
use Octavox\Core\Media\Phase;
use Octavox\Core\Media\Progress;
use Octavox\Core\Media\Segment;
use Octavox\Core\Media\Track;
use Octavox\Core\Plan\Action;
use Octavox\Core\Plan\CannotPlan;
use Octavox\Core\Plan\Existing;
use Octavox\Core\Plan\Plan;
use Octavox\Core\Plan\ResultChapters;
use Octavox\Core\Reading\OpenedSource;
use Octavox\Core\Reading\Opener;
use Octavox\Core\Sound\Time;
use Octavox\Core\Tag\Tags;

/** Carries out one plan: packets in, kept or decoded, shaped and encoded, packets out, verified, placed. */
final class Maker
{
    public function __construct(private readonly Progress $progress = new NoProgress)
    {
    }

    /**
     * @param  string  $token  makes the temporary name unique
     * @param  ?Originals  $originals  files that no result may replace; the plan's own source where none are named
     * @param  ?Journal  $journal  told of the finished file before it gets its name
     *
     * @throws Failure and leaves nothing behind
     */
    public function make(Plan $plan, string $token, ?Originals $originals = null, ?Journal $journal = null): Result
    {
        $began = hrtime(true);
        $workplace = new Workplace($plan->folder, $originals ?? Originals::of([$plan->source]));
        if ($plan->existing === Existing::Skip && $workplace->has($plan->name)) {
            return Result::skipped($plan);
        }
        $source = Opener::open($plan->source, $plan->stated);
        if ($source->media->source()->size() !== $plan->sourceBytes) {
            throw SourceChanged::size($plan->source, $plan->sourceBytes, $source->media->source()->size());
        }
        $track = $source->track($plan->track);
        if (! $plan->isSilent() && $track?->sound === null) {
            throw SourceChanged::track($plan->source);
        }
        $workplace->prepare();
        $workplace->sweep();
        $this->checkSpace($plan);
        $temporary = $workplace->temporary($token);
        try {
            $sink = FileSink::create($temporary);
            $receipt = $plan->picture === null && $track !== null
                ? (new Verifier($this->progress))->verify($plan, $temporary, $this->writeback($plan, $sink, $this->write($plan, $source, $track, $sink, $workplace->beside($token))))
                : (new VideoVerifier($this->progress))->verify($plan, $temporary, $this->writeback($plan, $sink, $this->writeFilm($plan, $source, $sink)));
            $this->progress->reached(Phase::Flushing, $plan->samples, $plan->samples);
            $sink->flush();
            $sink->close();
            $receipt = $receipt->withNotes($source->damage->notes($track->sound->rate ?? 1));
            $done = fn (string $path): Result => Result::done($plan, $path, $receipt, (hrtime(true) - $began) / 1e9);
            $journal?->write($temporary, $done($plan->path()));
            $path = $workplace->place($temporary, $plan->name, $plan->existing);
        } finally {
            if (is_file($temporary)) {
                unlink($temporary);
            }
        }

        return $path === null ? Result::skipped($plan) : $done($path);
    }

    /**
     * It is read back while the system is still writing it to the disk.
     *
     * @template T of Written|WrittenVideo
     *
     * @param  T  $written
     * @return T
     */
    private function writeback(Plan $plan, FileSink $sink, Written|WrittenVideo $written): Written|WrittenVideo
    {
        $sink->startWriteback();
        $this->progress->reached(Phase::Verifying, 0, $plan->samples);

        return $written;
    }

    private function checkSpace(Plan $plan): void
    {
        $free = @disk_free_space($plan->folder);
        if ($free !== false && $free < $plan->predictedBytes) {
            throw NoSpace::before($plan->folder, $plan->predictedBytes, $free);
        }
    }

    private function write(Plan $plan, OpenedSource $source, Track $track, FileSink $sink, string $beside): Written
    {
        $format = Outputs::named($plan->format) ?? throw CannotPlan::stopped($plan->source, sprintf('There is no format called %s.', $plan->format), 'Plan it again.');

        return $plan->action === Action::Kept
            ? (new StreamCopier($plan, $source, $track, $format, $sink, self::tags($plan, $source), $this->progress))->run()
            : $this->remake($plan, $source, $track, $format, $sink, $beside);
    }

    private function writeFilm(Plan $plan, OpenedSource $source, FileSink $sink): WrittenVideo
    {
        $format = VideoOutputs::named($plan->format) ?? throw CannotPlan::stopped($plan->source, sprintf('There is no kind of video called %s.', $plan->format), 'Plan it again.');

        return (new Remuxer($this->progress))->write($plan, $source, $format, $sink);
    }

    private function remake(Plan $plan, OpenedSource $source, Track $track, OutputFormat $format, FileSink $sink, string $beside): Written
    {
        $audio = $track->sound ?? throw SourceChanged::track($plan->source);
        $segments = $plan->shape->cut($track->timeline->from($plan->moment, $plan->lasts));
        if (! $plan->shape->changesSamples() && Repacking::isNeeded($audio, $plan->audio) && array_filter($segments, fn (Segment $segment): bool => $segment->from === null) === []) {
            return $this->repack($plan, $source, $track, $audio, $format, $sink);
        }
        $setting = LevelSetting::of($source, $track, $audio, $plan->sounds()[0], $plan->moment, $plan->lasts, $this->progress);

        return (new Transcoder($plan, $source, $track, $audio, $setting, $format, $sink, self::tags($plan, $source), $this->progress, $beside))->run();
    }

    /** A plan does not hold the cover itself, nor the time of day at which the recording began. */
    private static function tags(Plan $plan, OpenedSource $source): Tags
    {
        $own = $source->media->tags();
        $track = $source->track($plan->track);
        $rate = $track->sound->rate ?? $plan->audio->rate;
        $chapters = $track === null ? [] : ResultChapters::of($source->media->chapters(), $rate, $plan->moment, Segment::total($track->timeline->from($plan->moment, $plan->lasts)), $plan->shape);

        $tags = $plan->shape->level === null && $plan->shape->routing === null ? $plan->tags : $plan->tags->withoutLevels();

        return $tags->withCover($own->cover)->withLabel($plan->shape->label)->withChapters($chapters, $plan->samples / $plan->audio->rate)->withTimeReference($own->timeReference === null ? null : Time::rescale($own->timeReference + max(0, $plan->moment), $rate, $plan->audio->rate));
    }

    /** Samples of more than 24 bits, which floating point would round. */
    private function repack(Plan $plan, OpenedSource $source, Track $track, AudioFormat $audio, OutputFormat $format, FileSink $sink): Written
    {
        $writer = $format->writer($sink, $plan->audio, self::tags($plan, $source), $plan->samples, 0, 'Octavox');
        $repacking = new Repacking($audio, $plan->audio);
        $hash = hash_init('xxh128');
        $done = 0;
        foreach ($plan->shape->cut($track->timeline->from($plan->moment, $plan->lasts)) as $segment) {
            foreach (SegmentPackets::of($source->media, $track, $segment) as $packet) {
                $packed = new Packet($repacking->of($packet->data), $done, $packet->length);
                $writer->write($packed);
                hash_update($hash, $packed->data);
                $done += $packet->length;
                $this->progress->reached(Phase::Making, $done, $plan->samples);
            }
        }
        if ($done !== $plan->samples) {
            throw SoundMissing::seconds($plan->source, ($plan->samples - $done) / $plan->audio->rate);
        }
        $writer->finish($plan->samples, $plan->audio);

        return new Written(hash_final($hash), $sink->checksum(), $track->codedBytes, null);
    }
}
