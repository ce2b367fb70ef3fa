<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Container\CoverInText;
use Octavox\Core\Container\OutputFormat;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Container\Video\PictureSources;
use Octavox\Core\Container\Video\VideoOutputFormat;
use Octavox\Core\Container\Video\VideoOutputs;
use Octavox\Core\Failure;
use Octavox\Core\Media\SourceRef;
use Octavox\Core\Media\Track;
use Octavox\Core\Media\TrackKind;
use Octavox\Core\Name\LegalName;
use Octavox\Core\Name\NamePattern;
use Octavox\Core\Name\Signs;
use Octavox\Core\Order\IfExists;
use Octavox\Core\Order\IfRight;
use Octavox\Core\Order\Length;
use Octavox\Core\Order\OutputSpec;
use Octavox\Core\Order\PictureChoice;
use Octavox\Core\Order\SoundSpec;
use Octavox\Core\Order\TrackSelection;
use Octavox\Core\Reading\Reading;
use Octavox\Core\Tag\Chapter;
use Octavox\Core\Tag\Cover;
use Octavox\Core\Tag\TagField;
use Octavox\Core\Tag\Tags;

/**
 * Reading + spec → the exact plans of the results of one source. It opens nothing and calls no library, so that the answer is the same in
 * every process; what else it has to know is given to it, or told to be wanted.
 */
final readonly class Planner
{
    private Reading $source;

    private SourceKnowledge $knowledge;

    private Tags $tags;

    private function __construct(private OrderLine $line, private OutputSpec $spec, private MissingFacts $wanted, private int $number)
    {
        $this->source = $line->source;
        $this->knowledge = $line->knowledge;
        $this->tags = TagChanges::apply($spec, $line->source->tags);
    }

    /**
     * The plans of all results of one source: several where tracks, channels or pieces become files of their own; none where it is right
     * already and is to be left then.
     *
     * @param  OutputSpec  $spec  all that is asked, the changes of the line as well
     * @param  int  $number  place of the source in its order, counted from 1
     * @return list<Plan> where anything is wanted, of what could be planned without it
     *
     * @throws Failure why it is not possible
     */
    public static function plans(OrderLine $line, OutputSpec $spec, MissingFacts $wanted, int $number = 1): array
    {
        $source = $line->source;
        $obstacle = $source->obstacle();
        if ($obstacle !== null) {
            throw (new Violations\Stopped(says: $obstacle->says(), remedy: $obstacle->remedy()))->at($source->path);
        }
        $unknown = (new NamePattern($spec->name ?? '{stem}'))->unknown();
        if ($unknown !== []) {
            throw (new Violations\NameField(field: $unknown[0], nearest: array_keys(NamePattern::FIELDS)))->at($source->path);
        }
        $planner = new self($line, $spec, $wanted, $number);
        $video = VideoOutputs::named((string) $spec->container);
        $format = $video ?? Outputs::named((string) $spec->container);
        if ($spec->broadcast !== null && $format !== null
            && ! ($format instanceof OutputFormat && $format->capabilities()->holdsBroadcast)) {
            throw (new Violations\EncoderSetting(format: $format->label(), setting: 'fields for broadcasting'))
                ->at($source->path);
        }
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
            $sounds = array_map($name, Outputs::all());
            $violation = $video === null
                ? new Violations\NoFormat((string) $this->spec->container, [...$sounds, ...array_map($name, VideoOutputs::all())])
                : new Violations\PictureLeft($video->label(), $sounds);
            throw $violation->at($this->source->path);
        }
        if ($this->spec->picture === PictureChoice::Keep) {
            throw (new Violations\SoundAlone(format: $format->label(), nearest: array_map($name, VideoOutputs::all())))->at($this->source
                ->path);
        }
        $planned = [];
        foreach ($this->spec->sounds() as $sound) {
            if (! in_array($sound->codec, [null, 'keep', $format->name()], true)) {
                throw (new Violations\OtherCodec(format: $format->label(), codec: $sound->codec, nearest: [$format->name()]))->at($this
                    ->source->path);
            }
            foreach ($this->selected($sound, false) as $tracks) {
                // The codec of a file of sound is that of its format, whether it is said or not.
                $planned[] = $this->sounds($sound->withCodec(null), $format, null)->drafts($tracks);
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
            : [new Step(new Steps\DropChapters(format: $format->label()))];
        $hasCover = Cover::isGiven($this->spec->cover, $this->source->cover !== '');
        $tags = $this->tagsOf($draft->plan);
        $fields = $format->capabilities()->tags->lost($tags, $hasCover);
        if ($fields !== []) {
            $lost[] = new Step(new Steps\DropTags(fields: $fields, format: $format->label()));
        }

        return new Plan(
            $this->ref(),
            $this->target($format, $this->path($draft->plan, $isOneOfSeveral, $isPart, $tags), $draft->bytes),
            null, [$draft->plan], [], $tags, [...$draft->steps, ...$lost], $draft->warnings,
            $this->spec->cover,
        );
    }

    /** A chapter that becomes a file of its own is called by its own title, and counted, where nobody says otherwise. */
    private function tagsOf(SoundPlan $sound): Tags
    {
        if ($sound->shape->number === 0 || ! str_starts_with($this->spec->sounds()[0]->pieces ?? '', 'chapters')) {
            return $this->tags;
        }
        $rate = $this->source->track($sound->track)?->sound->rate ?? 1;
        $chapters = array_values(array_filter($this->source->chapters, fn (Chapter $one): bool => $one->title !== ''
            && abs((int) round($one->starts * $rate) - $sound->presentationStart - ($sound->shape->pieces[0]->from ?? 0)) <= 1));
        $said = $this->spec->tags ?? [];
        $disc = ($chapters[0] ?? null)?->disc;
        $own = array_filter(array_diff_key([
            TagField::Title->value => $disc?->title ?: ($chapters[0]->title ?? ''),
            TagField::Artist->value => $disc->performer ?? '',
            TagField::Isrc->value => $disc->isrc ?? '',
            TagField::Track->value => (string) ($disc->number ?? $sound->shape->number),
        ], $said), fn (string $value): bool => $value !== '');
        $tags = $this->tags;
        foreach ($own as $field => $value) {
            $tags = $tags->with(TagField::from($field), $value);
        }

        return $tags;
    }

    /** @throws Failure */
    private function video(VideoOutputFormat $video): Plan
    {
        $source = $this->source;
        $picture = $source->picture();
        $format = $picture?->picture;
        if ($picture === null || $format === null) {
            throw (new Violations\NoPicture(container: $video->label()))->at($source->path);
        }
        if (! PictureSources::offers($source->container, $format->codec) || ! $video->carriesPicture($format->codec)) {
            throw (new Violations\Picture(picture: $format->label, container: $video->label()))->at($source->path);
        }
        $steps = [new Step(new Steps\CopyPicture(format: $format->label))];
        $warnings = $sounds = [];
        $coded = array_sum(array_map(fn (Track $track): int => $track->codedBytes, $source->sound()));
        $bytes = $picture->codedBytes > 0 ? $picture->codedBytes : max(0, $source->bytes - $coded);
        $packets = 0;
        foreach ($this->videoDrafts($video) as $draft) {
            array_push($steps, ...array_map(fn (Step $step): Step => $step->ofSound(count($sounds)), $draft->steps));
            array_push($warnings, ...$draft->warnings);
            $bytes += $draft->bytes;
            $packets += intdiv($draft->plan->samples, max(1, $draft->plan->audio->frameLength ?: SizeForecast::USUAL_FRAME));
            $sounds[] = $draft->plan;
        }
        $bytes += SizeForecast::index($video, $picture->seconds(), $format->perSecond, $packets);
        [$auxiliaries, $more] = $this->auxiliaries($video);
        $path = $this->path($sounds[0] ?? null, false, false);

        return new Plan(
            $this->ref(), $this->target($video, $path, $bytes),
            new PicturePlan($picture->number, (int) round($picture->seconds() * 1000)),
            $sounds, $auxiliaries, $this->tags, [...$steps, ...$more], $warnings, $this->spec->cover,
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
                throw (new Violations\NoFormat(format: (string) $sound->codec, nearest: array_map(fn (OutputFormat $one): string => $one
                    ->name(), Outputs::all())))->at($this->source->path);
            }
            foreach ($this->selected($sound, true) as $tracks) {
                array_push($drafts, ...$this->sounds($sound, $format, $video)->drafts($tracks));
            }
        }

        return $drafts;
    }

    private function sounds(SoundSpec $sound, OutputFormat $format, ?VideoOutputFormat $video): SoundPlanner
    {
        return new SoundPlanner(new SoundRequest($this->source, $sound, $this->spec->length ?? Length::sound(), $format, $video,
            $this->knowledge, $this->wanted));
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
            $facts = [$track->kind === TrackKind::Timecode ? 'timecode' : 'subtitles', $track->number, $track->language ?? '',
                $video->label(), $track->coding];
            $steps[] = new Step($isCarried ? new Steps\CopyAuxiliary(...$facts) : new Steps\DropAuxiliary(...$facts));
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
            return $isVideo ? [] : throw (new Violations\NoSound)->at($this->source->path);
        }
        $missing = $selection->missing($tracks);
        if ($missing !== null) {
            throw ctype_digit($missing)
                ? (new Violations\NoTrack(track: (int) $missing, nearest: array_map(fn (Track $track): int => $track->number, $tracks)))
                    ->at($this->source->path)
                : (new Violations\NoLanguage(language: $missing, nearest: array_map(fn (Track $track): string => $track->language ?? '',
                    $tracks)))->at($this->source->path);
        }
        if (! $selection->isEmpty()) {
            return $selection->select($tracks);
        }

        return array_map(fn (Track $track): array => [$track->number], $isVideo ? $tracks : [$tracks[0]]);
    }

    private function ref(): SourceRef
    {
        return SourceRef::file($this->source->path, $this->source->bytes,
            $this->source->stated === null ? null : (string) $this->source->stated);
    }

    /** @param  non-empty-list<string>  $path  folders and name */
    private function target(OutputFormat|VideoOutputFormat $format, array $path, int $bytes): Target
    {
        $name = array_pop($path);
        $beside = dirname($this->source->path);
        $place = $this->spec->place === null || $this->spec->place === OutputSpec::BESIDE ? $beside : $this->spec->place;

        $hasCover = $format instanceof VideoOutputFormat || $format->capabilities()->tags->cover;
        $cover = match (true) {
            ! $hasCover => 0,
            $this->spec->cover === null => $this->source->coverBytes,
            default => $this->spec->cover === '' ? 0 : $this->knowledge->coverBytes,
        };

        return new Target($format->name(), implode('/', [$place === '/' && $path !== [] ? '' : $place, ...$path]),
            $name.'.'.$format->extension(), $this->spec->ifExists ?? IfExists::Number,
            $bytes + ($format instanceof CoverInText ? intdiv($cover * 4, 3) : $cover));
    }

    /**
     * Folders beneath the place, and the name without extension.
     *
     * @param  bool  $isOneOfSeveral  whether other sounds of the source become results too
     * @param  bool  $isPart  whether channels or pieces of its sound become results of their own
     * @return non-empty-list<string>
     */
    private function path(?SoundPlan $sound, bool $isOneOfSeveral, bool $isPart, ?Tags $tags = null): array
    {
        $pattern = new NamePattern($this->spec->name ?? '{stem}', $this->spec->nameSigns ?? Signs::Keep);
        $shape = $sound->shape ?? new Shape;
        $track = $sound === null ? '' : (string) $sound->track;
        $piece = $shape->number > 0 ? sprintf('%02d', $shape->number) : '';
        $path = $pattern->path([
            ...$this->tagValues($tags ?? $this->tags), 'stem' => $this->line->label->stem($this->source->path), 'sound_track' => $track,
            'number' => (string) $this->number, 'folder' => $this->line->label->folder($this->source->path),
            'tree' => $this->line->label->folders(), 'codec' => $sound === null ? '' : CodecModules::of($sound->audio->codec)->label(),
            'layout' => $sound?->audio->layout->name() ?? '', 'rate' => $sound === null ? '' : (string) $sound->audio->rate,
            'label' => $shape->label, 'piece' => $piece,
        ]);
        $more = array_filter([
            ! $isOneOfSeveral || $pattern->has('sound_track') ? '' : $track,
            $pattern->has('piece') || $pattern->has('track') && $tags?->get(TagField::Track) === (string) $shape->number ? '' : $piece,
            ! $isPart || $pattern->has('label') ? '' : $shape->label,
        ], fn (string $part): bool => $part !== '');
        $name = (string) array_pop($path);

        return [...$path, $more === [] ? $name : LegalName::from($name.' '.implode(' ', $more))];
    }

    /** @return array<string, string> what names can take of the tags that the result will have */
    private function tagValues(Tags $tags): array
    {
        $values = ['recorded' => $tags->day() ?: $tags->get(TagField::Year) ?? ''];
        foreach ($tags->values() as $field => $value) {
            $values[TagField::tryFrom($field) === null ? 'tag:'.mb_strtolower($field) : $field] = $value;
            $values['tag:'.mb_strtolower($field)] = $value;
        }

        return $values;
    }

    /** Whether a plan would only copy its source as it is. */
    private function isRight(Plan $plan): bool
    {
        $extension = strtolower(pathinfo($this->source->path, PATHINFO_EXTENSION));
        $isCut = array_filter($plan->sounds, fn (SoundPlan $sound): bool => $sound->shape->pieces !== []
            || $sound->duration !== null) !== [];
        $hasAll = $plan->picture === null ? $this->source->picture() === null && count($this->source->sound()) === 1
            : count($plan->sounds) === count($this->source->sound());

        return $plan->isKept() && $hasAll && ! $isCut && $this->tags == $this->source->tags && $this->spec->cover === null
            && ! $this->source->extensionDiffers()
            && $extension === strtolower(pathinfo($plan->name(), PATHINFO_EXTENSION));
    }
}
