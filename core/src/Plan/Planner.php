<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

use Octavox\Core\Container\OutputFormat;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Container\Video\VideoOutputFormat;
use Octavox\Core\Container\Video\VideoOutputs;
use Octavox\Core\Failure;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\SourceRef;
use Octavox\Core\Media\Track;
use Octavox\Core\Media\TrackKind;
use Octavox\Core\Name\LegalName;
use Octavox\Core\Name\NamePattern;
use Octavox\Core\Order\IfExists;
use Octavox\Core\Order\IfRight;
use Octavox\Core\Order\Length;
use Octavox\Core\Order\OutputSpec;
use Octavox\Core\Order\PictureChoice;
use Octavox\Core\Order\SoundSpec;
use Octavox\Core\Order\TrackSelection;
use Octavox\Core\Reading\Reading;
use Octavox\Core\Tag\TagField;
use Octavox\Core\Tag\Tags;

/**
 * Reading + spec → the exact plans of the results of one source. It opens nothing and calls no library, so that the answer is the same in
 * every process; what else it has to know is given to it, or told to be wanted.
 */
final readonly class Planner
{
    /** Containers whose pictures can be copied out. */
    private const SOURCES = ['mp4', 'mov', 'm4a', '3gp', 'mkv', 'webm', 'mpeg-ts', 'mpeg-ps', 'avi', 'flv', 'asf'];

    /** Pictures that can be copied out of program and transport streams. */
    private const STREAMED = [Codec::H264, Codec::H265, Codec::Mpeg1Video, Codec::Mpeg2Video];

    /** Bytes that a video's index takes beside what is copied, about. */
    private const VIDEO_HEAD = 65_536;

    private function __construct(private Reading $source, private OutputSpec $spec, private SourceKnowledge $knowledge,
        private Wanted $wanted, private int $number) {}

    /**
     * The plans of all results of one source: several where tracks, channels or pieces become files of their own; none where it is right
     * already and is to be left then.
     *
     * @param  int  $number  place of the source in its order, counted from 1
     * @return list<Plan> where anything is wanted, of what could be planned without it
     *
     * @throws Failure why it is not possible
     */
    public static function plans(Reading $source, OutputSpec $spec, SourceKnowledge $knowledge, Wanted $wanted, int $number = 1): array
    {
        $obstacle = $source->obstacle();
        if ($obstacle !== null) {
            throw Violation::of(ViolationRule::Stopped, says: $obstacle->says(), remedy: $obstacle->remedy())->at($source->path);
        }
        $planner = new self($source, $spec, $knowledge, $wanted, $number);
        $video = VideoOutputs::named((string) $spec->container);
        $plans = $video !== null && $spec->picture !== PictureChoice::Leave ? [$planner->video($video)] : $planner->files();

        return $spec->ifRight === IfRight::Leave
            ? array_values(array_filter($plans, fn (Plan $plan): bool => ! $planner->isRight($plan))) : $plans;
    }

    /**
     * @return list<Plan>
     *
     * @throws Failure
     */
    private function files(): array
    {
        $format = Outputs::named((string) $this->spec->container);
        $name = fn (OutputFormat|VideoOutputFormat $one): string => $one->name();
        if ($format === null) {
            $video = VideoOutputs::named((string) $this->spec->container);
            throw Violation::of($video === null ? ViolationRule::NoFormat : ViolationRule::PictureLeft,
                format: $video?->label() ?? (string) $this->spec->container)
                ->nearest(array_map($name, [...Outputs::all(), ...($video === null ? VideoOutputs::all() : [])]))->at($this->source->path);
        }
        if ($this->spec->picture === PictureChoice::Keep) {
            throw Violation::of(ViolationRule::SoundAlone, format: $format->label())
                ->nearest(array_map($name, VideoOutputs::all()))->at($this->source->path);
        }
        $planned = [];
        foreach ($this->spec->sounds() as $sound) {
            if (! in_array($sound->codec, [null, 'keep', $format->name()], true)) {
                throw Violation::of(ViolationRule::OtherCodec, format: $format->label(), codec: $sound->codec)
                    ->nearest([$format->name()])->at($this->source->path);
            }
            foreach ($this->selected($sound, false) as $tracks) {
                // The codec of a file of sound is that of its format, whether it is said or not.
                $planned[] = $this->sounds($sound->with(codec: null), $format, null)->drafts($tracks);
            }
        }
        $isOneOfSeveral = count($planned) > 1;

        return array_merge(...array_map(
            fn (array $drafts): array => array_map(fn (SoundDraft $draft): Plan => $this->file($format, $draft, $isOneOfSeveral,
                count($drafts) > 1), $drafts),
            $planned,
        ));
    }

    private function file(OutputFormat $format, SoundDraft $draft, bool $isOneOfSeveral, bool $isPart): Plan
    {
        $lost = $this->source->chapters === [] || $format->capabilities()->holdsChapters ? []
            : [Step::of(StepKind::DropChapters, format: $format->label())];

        return new Plan(
            $this->ref(),
            $this->target($format->name(), $this->name($draft->plan, $isOneOfSeveral, $isPart).'.'.$format->extension(), $draft->bytes),
            null, [$draft->plan], [], $this->tags(), [...$draft->steps, ...$lost], $draft->warnings,
        );
    }

    /** @throws Failure */
    private function video(VideoOutputFormat $video): Plan
    {
        $source = $this->source;
        $picture = $source->picture();
        $format = $picture?->picture;
        if ($picture === null || $format === null) {
            throw Violation::of(ViolationRule::NoPicture, container: $video->label())->at($source->path);
        }
        $isCopied = ! str_starts_with($source->container, 'mpeg-') || in_array($format->codec, self::STREAMED, true);
        if (! in_array($source->container, self::SOURCES, true) || ! $isCopied || ! $video->carriesPicture($format->codec)) {
            throw Violation::of(ViolationRule::Picture, picture: $format->label, container: $video->label())->at($source->path);
        }
        $steps = [Step::of(StepKind::CopyPicture, format: $format->label)];
        $warnings = $sounds = [];
        $coded = array_sum(array_map(fn (Track $track): int => $track->codedBytes, $source->sound()));
        $bytes = $picture->codedBytes > 0 ? $picture->codedBytes + self::VIDEO_HEAD : max(0, $source->bytes - $coded);
        foreach ($this->videoDrafts($video) as $draft) {
            array_push($steps, ...array_map(fn (Step $step): Step => $step->ofSound(count($sounds)), $draft->steps));
            array_push($warnings, ...$draft->warnings);
            $bytes += $draft->bytes;
            $sounds[] = $draft->plan;
        }
        [$auxiliaries, $more] = $this->auxiliaries($video);
        $name = $this->name($sounds[0] ?? null, false, false).'.'.$video->extension();

        return new Plan(
            $this->ref(), $this->target($video->name(), $name, $bytes),
            new PicturePlan($picture->number, (int) round($picture->seconds() * 1000)),
            $sounds, $auxiliaries, $this->tags(), [...$steps, ...$more], $warnings,
        );
    }

    /**
     * @return list<SoundDraft>
     *
     * @throws Failure
     */
    private function videoDrafts(VideoOutputFormat $video): array
    {
        $drafts = [];
        foreach ($this->spec->sounds() as $sound) {
            $isOwn = in_array($sound->codec, [null, 'keep'], true);
            $format = $isOwn ? $video->encodes() : Outputs::named((string) $sound->codec);
            if ($format === null) {
                throw Violation::of(ViolationRule::NoFormat, format: (string) $sound->codec)
                    ->nearest(array_map(fn (OutputFormat $one): string => $one->name(), Outputs::all()))->at($this->source->path);
            }
            foreach ($this->selected($sound, true) as $tracks) {
                array_push($drafts, ...$this->sounds($sound, $format, $video)->drafts($tracks));
            }
        }

        return $drafts;
    }

    private function sounds(SoundSpec $sound, OutputFormat $format, ?VideoOutputFormat $video): SoundPlanner
    {
        return new SoundPlanner($this->source, $sound, $this->spec->length ?? Length::Sound, $format, $video,
            $this->knowledge, $this->wanted);
    }

    /** @return array{list<int>, list<Step>} numbers of the subtitles and time codes that are copied, and what becomes of all */
    private function auxiliaries(VideoOutputFormat $video): array
    {
        $numbers = $steps = [];
        foreach ($this->source->tracks as $track) {
            if ($track->coding === '') {
                continue;
            }
            $isCarried = $video->carriesAuxiliary($track->coding);
            $numbers = $isCarried ? [...$numbers, $track->number] : $numbers;
            $steps[] = Step::of(
                $isCarried ? StepKind::CopyAuxiliary : StepKind::DropAuxiliary,
                auxiliary: $track->kind === TrackKind::Timecode ? 'timecode' : 'subtitles',
                track: $track->number, language: $track->language ?? '', container: $video->label(), coding: $track->coding,
            );
        }

        return [$numbers, $steps];
    }

    /**
     * @return list<non-empty-list<int>> numbers of the tracks of each sound that is meant
     *
     * @throws Failure
     */
    private function selected(SoundSpec $sound, bool $isVideo): array
    {
        $tracks = $this->source->sound();
        $selection = TrackSelection::parse($sound->tracks);
        if ($tracks === []) {
            return $isVideo ? [] : throw Violation::of(ViolationRule::NoSound)->at($this->source->path);
        }
        $missing = $selection->missing($tracks);
        if ($missing !== null) {
            throw ctype_digit($missing)
                ? Violation::of(ViolationRule::NoTrack, track: (int) $missing)
                    ->nearest(array_map(fn (Track $track): int => $track->number, $tracks))->at($this->source->path)
                : Violation::of(ViolationRule::NoLanguage, language: $missing)
                    ->nearest(array_map(fn (Track $track): string => $track->language ?? '', $tracks))->at($this->source->path);
        }
        if (! $selection->isEmpty()) {
            return $selection->of($tracks);
        }

        return array_map(fn (Track $track): array => [$track->number], $isVideo ? $tracks : [$tracks[0]]);
    }

    private function ref(): SourceRef
    {
        return SourceRef::file($this->source->path, $this->source->bytes,
            $this->source->stated === null ? null : (string) $this->source->stated);
    }

    private function target(string $container, string $name, int $bytes): Target
    {
        return new Target($container, $this->spec->place ?? dirname($this->source->path), $name,
            $this->spec->ifExists ?? IfExists::Number, $bytes);
    }

    private function tags(): Tags
    {
        $tags = $this->source->tags;
        foreach ($this->spec->tags ?? [] as $field => $value) {
            $field = TagField::tryFrom($field);
            $tags = $field === null ? $tags : $tags->with($field, ...($value === null ? [] : [$value]));
        }

        return $tags;
    }

    /**
     * The name without extension.
     *
     * @param  bool  $isOneOfSeveral  whether other sounds of the source become results too
     * @param  bool  $isPart  whether channels or pieces of its sound become results of their own
     */
    private function name(?SoundPlan $sound, bool $isOneOfSeveral, bool $isPart): string
    {
        $pattern = new NamePattern($this->spec->name ?? '{stem}');
        $shape = $sound->shape ?? new Shape;
        $track = $sound === null ? '' : (string) $sound->track;
        $piece = $shape->number > 0 ? sprintf('%02d', $shape->number) : '';
        $tags = $this->tags();
        $name = $pattern->fill([
            'stem' => pathinfo($this->source->path, PATHINFO_FILENAME), 'track' => $track, 'number' => (string) $this->number,
            'title' => $tags->get(TagField::Title) ?? '', 'artist' => $tags->get(TagField::Artist) ?? '',
            'layout' => $sound?->audio->layout->name() ?? '', 'rate' => $sound === null ? '' : (string) $sound->audio->rate,
            'label' => $shape->label, 'piece' => $piece,
        ]);
        $more = array_filter([
            ! $isOneOfSeveral || $pattern->has('track') ? '' : $track,
            $pattern->has('piece') ? '' : $piece,
            ! $isPart || $pattern->has('label') ? '' : $shape->label,
        ], fn (string $part): bool => $part !== '');

        return $more === [] ? $name : LegalName::from($name.' '.implode(' ', $more));
    }

    /** Whether a plan would only copy its source as it is. */
    private function isRight(Plan $plan): bool
    {
        $extension = strtolower(pathinfo($this->source->path, PATHINFO_EXTENSION));
        $isCut = array_filter($plan->sounds, fn (SoundPlan $sound): bool => $sound->shape->pieces !== []
            || $sound->duration !== null) !== [];
        $hasAll = $plan->picture === null ? $this->source->picture() === null && count($this->source->sound()) === 1
            : count($plan->sounds) === count($this->source->sound());

        return $plan->isKept() && $hasAll && ! $isCut && $this->spec->tags === null && ! $this->source->extensionDiffers()
            && $extension === strtolower(pathinfo($plan->name(), PATHINFO_EXTENSION));
    }
}
