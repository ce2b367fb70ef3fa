<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Codec\CodecNotDecodable;
use Octavox\Core\Codec\Codecs;
use Octavox\Core\Codec\EncoderSettings;
use Octavox\Core\Codec\PlausibleLength;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\Fidelity;
use Octavox\Core\Container\LateStart;
use Octavox\Core\Container\OutputFormat;
use Octavox\Core\Container\Video\VideoOutputFormat;
use Octavox\Core\Failure;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\BordersQuery;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\PresentationStart;
use Octavox\Core\Media\SampleKind;
use Octavox\Core\Media\Segment;
use Octavox\Core\Media\Track;
use Octavox\Core\Order\Length;
use Octavox\Core\Order\SoundSpec;
use Octavox\Core\Reading\Reading;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Sound\Piece;
use Octavox\Core\Sound\Time;
use Octavox\Core\Sound\TimePosition;
use Octavox\Core\Tag\Chapter;
use Octavox\Core\Tag\Tags;

/**
 * What becomes of one sound of a source, alone in a file or beside a picture, with the least change that gives what is asked: packets that
 * can stay as they are stay.
 */
final class SoundPlanner
{
    private readonly EncoderChoice $encoder;

    private Track $track;

    private AudioFormat $from;

    private int $start = 0;

    private ?int $duration = null;

    /** What is asked of pieces, see {@see SoundSpec::$pieces}. */
    private string $pieces = '';

    /** @var list<Segment> what is presented of the track */
    private array $whole = [];

    /** @var non-empty-list<int> */
    private array $numbers = [0];

    private EncoderSettings $settings;

    /**
     * @param  OutputFormat  $format  how the sound is encoded where it is not kept
     * @param  ?VideoOutputFormat  $video  null where a file of sound alone is made
     */
    public function __construct(
        private readonly Reading $source,
        private readonly SoundSpec $spec,
        private readonly Length $length,
        private readonly OutputFormat $format,
        private readonly ?VideoOutputFormat $video,
        private readonly SourceKnowledge $knowledge,
        private readonly MissingFacts $wanted,
    ) {
        $this->encoder = new EncoderChoice($format, $source->path);
    }

    /**
     * One for each result: several where channels or pieces become results of their own.
     *
     * @param  non-empty-list<int>  $numbers  of the tracks whose channels are taken together
     * @return non-empty-list<SoundDraft>
     *
     * @throws Failure why it is not possible
     */
    public function drafts(array $numbers): array
    {
        $path = $this->source->path;
        $tracks = array_map(fn (int $number): Track => $this->source->track($number)
            ?? throw (new Violations\NoTrack(track: $number))->at($path), $numbers);
        $this->numbers = $numbers;
        $this->track = $tracks[0];
        $this->from = $this->track->sound ?? throw (new Violations\NoSound)->at($path);
        $this->start = PresentationStart::of($this->source->tracks, $this->from->rate);
        if (count($tracks) > 1) {
            $this->track = JoinedTracks::asOne($path, $tracks, $this->start);
            $this->from = $this->track->sound ?? $this->from;
        }
        $this->pieces = $this->spec->pieces ?? '';
        $this->duration = $this->duration();
        $this->whole = $this->track->timeline->from($this->start, $this->duration);
        $this->requireSound();

        return array_map($this->draft(...), $this->shapes());
    }

    /**
     * @return non-empty-list<Shape>
     *
     * @throws Failure
     */
    private function shapes(): array
    {
        $pieces = $this->pieces;
        if ($this->video !== null && $pieces !== '') {
            throw (new Violations\VideoPieces)->at($this->source->path);
        }
        if (str_starts_with($pieces, 'silences')) {
            $key = SourceKnowledge::silenceKey($this->numbers[0], $pieces);
            $pieces = $this->knowledge->silences[$key] ?? '';
            if ($pieces === '') {
                $this->wanted->silences[$key] = [$this->numbers[0], (string) $this->spec->pieces];
            }
        }
        $chapters = array_map(fn (Chapter $chapter): int => max(0, (int) round($chapter->starts * $this->from->rate) - $this->start),
            $this->source->chapters);
        $ends = array_map(fn (Chapter $chapter): ?int => $chapter->disc?->ends === null ? null
            : max(0, (int) round($chapter->disc->ends * $this->from->rate) - $this->start), $this->source->chapters);
        $builder = new ShapeBuilder($this->from->layout, $this->from->rate, Segment::total($this->whole),
            $this->source->picture()->picture->perSecond ?? 0.0, $chapters,
            array_filter($ends, fn (?int $end): bool => $end !== null));

        $emphasised = $this->spec->deEmphasis === true ? $this->emphasised($chapters) : [];

        return array_map(fn (Shape $shape): Shape => $shape->joining(array_slice($this->numbers, 1))
            ->deemphasising($emphasised, Segment::total($this->whole)), $builder->shapes($this->spec->withPieces($pieces)));
    }

    /**
     * Tracks of a disc that were recorded with pre-emphasis; those that follow each other are one stretch.
     *
     * @param  list<int>  $chapters  samples at which they begin
     * @return list<Piece>
     */
    private function emphasised(array $chapters): array
    {
        $stretches = [];
        foreach ($this->source->chapters as $index => $chapter) {
            if ($chapter->disc?->isEmphasised !== true) {
                continue;
            }
            $until = $chapters[$index + 1] ?? Segment::total($this->whole);
            $last = $stretches[count($stretches) - 1] ?? null;
            if ($last !== null && $last->until === $chapters[$index]) {
                array_pop($stretches);
            }
            $stretches[] = new Piece($last?->until === $chapters[$index] ? $last->from : $chapters[$index], $until);
        }

        return $stretches;
    }

    /** @throws Failure */
    private function draft(Shape $shape): SoundDraft
    {
        $layout = $shape->routing->layout ?? $this->from->layout;
        $layout = $layout->name() === $this->from->layout->name() ? $this->from->layout : $layout;
        $this->encoder->requireBitDepth($this->spec->bitDepth);
        $this->settings = $this->encoder->settings($this->spec);
        $shape->mix($this->from->layout, $layout);
        $kept = $this->video === null ? $this->keptInFile($shape, $layout) : $this->keptBesidePicture($shape);

        return $kept === null ? $this->remade($shape, $layout) : $this->kept($kept);
    }

    /** Beside a picture sound is kept where the container carries it and nothing else is asked. */
    private function keptBesidePicture(Shape $shape): ?SoundPlan
    {
        $spec = $this->spec;
        $isUntouched = ! $shape->changesSamples() && in_array($spec->codec, [null, 'keep'], true)
            && in_array($spec->rate, [null, $this->from->rate], true) && $spec->bitDepth === null;
        $segments = $this->whole;
        $coded = array_filter($segments, fn (Segment $segment): bool => $segment->from !== null);
        // One stretch of the coded sound, after silence or at once: what an edit or a time stamp can say.
        $isOne = count($coded) === 1 && $segments[count($segments) - 1]->from !== null && count($segments) <= 2;

        return $isUntouched && $isOne && $this->video?->carriesSound($this->from) === true
            ? $this->plan(Action::Kept, $this->from, RateControl::none(), $segments[count($segments) - 1]->length, false, new Shape) : null;
    }

    /** @throws Failure where what is asked is not possible whether it is kept or not */
    private function keptInFile(Shape $shape, Layout $layout): ?SoundPlan
    {
        // What an encoder can do does not bind what is only copied.
        $stays = $this->from->pcm === null && $this->format->carries($this->from)
            && in_array($this->spec->rate, [null, $this->from->rate], true)
            && in_array($this->spec->bitDepth, [null, $this->from->bits()], true) && $layout->name() === $this->from->layout->name();
        $audio = $stays ? $this->from : $this->encoded($layout);
        $rateControl = $this->encoder->rateControl($this->spec->rateControl, $audio, $this->track, $this->from);
        $shape = $shape->inOrderOf($audio->layout, $this->from->layout);
        $segments = $shape->cut($this->whole);
        $isCarried = $this->format->carries($this->from) && $this->from->codec === $audio->codec && $this->from->rate === $audio->rate
            && $this->from->layout->sounds($audio->layout);
        if (! $isCarried || $shape->changesSamples()) {
            return null;
        }
        if ($this->from->pcm !== null) {
            return $this->keptPcm($audio, $shape, $segments);
        }
        if (count($segments) !== 1 || $segments[0]->from === null || ! $this->isSmallEnough($rateControl)) {
            return null;
        }
        if ($shape->pieces !== []) {
            $cut = count($shape->pieces) === 1 ? $this->cut($audio, $segments[0]) : null;

            return $cut === null ? null
                : $this->plan(Action::Kept, $this->from, RateControl::none(), $cut->samples, false, $shape->keeping($cut));
        }
        $samples = $this->format->presentedKept($audio, $this->track->timeline->coded, $segments[0]->from, $segments[0]->length);
        $isNarrower = CodecModules::of($this->from->codec)->isLossless() && $audio->bitDepth !== $this->from->bitDepth;

        return $samples === null || $isNarrower || $this->length->isOfPicture() && $samples !== $segments[0]->length
            ? null : $this->plan(Action::Kept, $this->from, RateControl::none(), $samples, false, $shape);
    }

    /** @param  list<Segment>  $segments  what is wanted of the track */
    private function keptPcm(AudioFormat $audio, Shape $shape, array $segments): ?SoundPlan
    {
        $isSame = $audio->pcm !== null && $this->from->pcm?->equals($audio->pcm) === true
            && $this->from->layout->placesOf($audio->layout) === array_keys($audio->layout->channels);

        return $isSame && Segment::silent($segments) === 0
            ? $this->plan(Action::Kept, $audio, RateControl::none(), Segment::total($segments), false, $shape) : null;
    }

    /** Which packets are copied of one piece; null where it is encoded anew. */
    private function cut(AudioFormat $audio, Segment $segment): ?KeptCut
    {
        if (Codecs::trimmer($this->from->codec) === null) {
            return null;
        }
        $from = (int) $segment->from;
        $query = new BordersQuery($this->numbers[0], $from, $from + $segment->length);
        $borders = $this->knowledge->borders[$query->key()] ?? null;
        if ($borders === null) {
            $this->wanted->borders[$query->key()] = $query;

            return null;
        }
        $cut = KeptCut::around($borders, $this->from, $this->format, $from, $from + $segment->length);
        // Encoding anew is only more exact where the file can say what not to present.
        $isMoreExact = $this->spec->exact === true && $cut?->isExact() === false
            && $this->format->presented($audio, $segment->length) === $segment->length;

        return $isMoreExact ? null : $cut;
    }

    /** @throws Failure */
    private function remade(Shape $shape, Layout $layout): SoundDraft
    {
        $this->requireRemaking();
        $audio = $this->encoded($layout);
        $audio = $audio->withBitDepth(8 * intdiv($audio->bitDepth + 7, 8));
        $shape = $shape->inOrderOf($audio->layout, $this->from->layout);
        if ($this->video?->carriesSound($audio->codec === Codec::Pcm ? $audio : $audio->withConfig('x')) === false) {
            throw (new Violations\VideoSound(container: $this->video->label(), format: CodecModules::describe($audio)))
                ->at($this->source->path);
        }
        $rateControl = $this->encoder->rateControl($this->spec->rateControl, $audio, $this->track, $this->from);
        $presented = Time::rescale(Segment::total($shape->cut($this->whole)), $this->from->rate, $audio->rate);
        if ($presented === 0) {
            throw (new Violations\TooShort(track: $this->numbers[0], rate: $audio->rate))->at($this->source->path);
        }
        $samples = $this->video === null ? $this->format->presented($audio, $presented) : $presented;
        $dither = $this->spec->dither !== false && self::needsDither($this->from, $audio, $shape);
        $plan = $this->plan(Action::Remade, $audio, $rateControl, $samples, $dither, $shape, $this->settings);
        $own = EncoderChoice::kbps($this->track);
        $isLossyAgain = ! CodecModules::of($this->from->codec)->isLossless() && ! CodecModules::of($audio->codec)->isLossless() && $own > 0
            && $rateControl->kbps > 0;
        // Where nobody asked for a rate, another codec gets what it needs.
        $isChosen = $isLossyAgain && $this->spec->rateControl === null && $this->from->codec !== $audio->codec;
        $isRaised = $isLossyAgain && ! $isChosen && $rateControl->kbps > $own * EncoderChoice::SLACK;
        $enough = $isChosen ? [new Step(new Steps\EnoughRate(kbps: $rateControl->kbps, format: CodecModules::of($audio->codec)->label(),
            own: round($own, 3), source: CodecModules::describe($this->from)))] : [];

        $late = $this->video === null && $this->format instanceof LateStart ? $this->format->startsLate($audio) : 0;

        return new SoundDraft($plan, [...$this->steps()->remade($plan, $samples - $presented),
            ...$enough, ...$this->late($late, $audio->rate)], [
                ...$this->steps()->filledSilence(),
                ...$this->steps()->assumedPlaces($plan),
                ...($isRaised ? [new Step(new Steps\RaisedRate(kbps: $rateControl->kbps, own: round($own, 3)))] : []),
            ], $this->remadeBytes($plan));
    }

    /** @return list<Step> */
    private function late(int $samples, int $rate): array
    {
        return $samples > 0 ? [new Step(new Steps\LateStart(samples: $samples, rate: $rate))] : [];
    }

    private function kept(SoundPlan $plan): SoundDraft
    {
        $doubts = $this->video?->doubts($this->from);

        // What an encoder put first stays, and nothing tells any more that it is to be left out.
        $isLate = $this->video === null && $this->format instanceof LateStart && $plan->shape->kept === null;
        $late = $isLate ? max(0, $this->whole[0]->from ?? 0) : 0;

        return new SoundDraft($plan, [...$this->steps()->kept($plan, $this->video === null), ...$this->late($late, $plan->audio->rate)], [
            ...$this->steps()->filledSilence(), ...($doubts === null ? [] : [new Step(new Steps\DoubtfulSound(says: $doubts))]),
        ], $this->keptBytes($plan));
    }

    private function plan(Action $action, AudioFormat $audio, RateControl $rateControl, int $samples, bool $dither, Shape $shape,
        EncoderSettings $settings = new EncoderSettings): SoundPlan
    {
        return new SoundPlan($this->numbers[0], $this->start, $this->duration, $action, $audio, $rateControl, $samples, $dither, $shape,
            $settings);
    }

    private function steps(): SoundSteps
    {
        return new SoundSteps($this->track, $this->from, $this->whole, $this->start, $this->length);
    }

    private function keptBytes(SoundPlan $plan): int
    {
        return match (true) {
            $this->video !== null => $this->track->codedBytes,
            $plan->audio->codec === Codec::Pcm => $this->format->predict($plan->audio, RateControl::none(), $plan->samples,
                $this->tags($plan)),
            default => (int) ($this->track->codedBytes * min(1.0, $plan->samples / max(1, Segment::total($this->whole))))
                + SizeForecast::KEPT_HEAD,
        };
    }

    private function remadeBytes(SoundPlan $plan): int
    {
        $isLossless = $this->format->capabilities()->fidelity === Fidelity::Lossless;
        $packed = $this->knowledge->packed[$this->numbers[0]] ?? null;
        if ($this->video === null && $isLossless && $packed !== null) {
            return SizeForecast::lossless($packed->bits, $plan->audio, $plan->samples, $plan->dither);
        }
        $isAsPacked = $this->video === null && $isLossless && CodecModules::of($this->from->codec)->isLossless() && $this->from
            ->codec !== Codec::Pcm
            && $this->track->codedBytes > 0
            && $plan->audio->rate === $this->from->rate && $plan->audio->channels() === $this->from->channels()
                && $plan->audio->bits() === $this->from->bits();

        // What was compressed without loss becomes about as large in any other way of that.
        return $isAsPacked ? (int) ($this->track->codedBytes * min(1.0, $plan->samples / max(1, Segment::total($this->whole))))
            + SizeForecast::LOSSLESS_HEAD
            : SizeForecast::following($packed, $plan->audio, $plan->samples,
                $this->format->predict($plan->audio, $plan->rateControl, $plan->samples, $this->tags($plan)));
    }

    private function tags(SoundPlan $plan): Tags
    {
        return $this->video !== null ? $this->source->tags : $this->source->tags->withLabel($plan->shape->label)
            ->withChapters(ResultChapters::of($this->source->chapters, $this->from->rate, $this->start,
                Segment::total($this->whole), $plan->shape));
    }

    /** @throws Failure where the format has no such sound */
    private function encoded(Layout $layout): AudioFormat
    {
        $most = $this->format->capabilities()->mostChannels;
        if ($layout->count() > $most) {
            throw (new Violations\Channels(format: $this->format->label(), most: $most, layout: $layout->name(), nearest: $most === 1
                ? ['mono'] : ['stereo', 'mono']))->at($this->source->path);
        }

        return $this->format->audio($this->from, $this->encoder->rate($this->spec->rate, $this->from->rate), $layout,
            $this->spec->bitDepth);
    }

    /** @throws Failure where the sound cannot be decoded or the format cannot be encoded */
    private function requireRemaking(): void
    {
        if (! Codecs::canDecode($this->from)) {
            throw CodecNotDecodable::of($this->from);
        }
        if (! $this->format->capabilities()->makes) {
            throw (new Violations\OnlyKept(format: $this->format->label(), source: CodecModules::describe($this->from)))
                ->at($this->source->path);
        }
    }

    /** @throws Failure where there is no sound, or next to nothing but silence would be made */
    private function requireSound(): void
    {
        if (Segment::areEmpty($this->whole)) {
            if ($this->video === null) {
                $this->requireRemaking();
            }
            throw (new Violations\EmptyTrack(track: $this->numbers[0]))->at($this->source->path);
        }
        $silent = Segment::silent($this->whole);
        $isMuch = $silent > max(PlausibleLength::MOST_SILENCE * $this->from->rate,
            PlausibleLength::MUCH_MORE * (Segment::total($this->whole) - $silent));
        if ($isMuch || PlausibleLength::isExceeded($this->track, $this->whole, $this->source->bytes)) {
            throw (new Violations\Silence(track: $this->numbers[0], hours: ($isMuch ? $silent : Segment::total($this->whole)) / $this->from
                ->rate / 3600))
                ->at($this->source->path);
        }
    }

    /**
     * How long the result is to be, in samples of the source; null for as long as its sound.
     *
     * @throws CannotPlan where there is no picture to be as long as
     * @throws Failure
     */
    private function duration(): ?int
    {
        $nearest = [Length::sound()->value];
        if ($this->length->isOfSound()) {
            return null;
        }
        if ($this->video !== null) {
            throw (new Violations\VideoLength(nearest: $nearest))->at($this->source->path);
        }
        if ($this->length->isTime()) {
            return $this->asked($nearest);
        }
        $picture = $this->source->picture()?->picture;
        $duration = $picture === null ? 0 : (int) round($picture->seconds * $this->from->rate);

        return $duration > 0 ? $duration : throw (new Violations\NoLength(name: basename($this->source->path), nearest: $nearest))
            ->at($this->source->path);
    }

    /**
     * A length that was asked for by number: a longer sound is cut there, a shorter one gets silence.
     *
     * @param  list<string>  $nearest  what could be asked instead
     * @return ?int as {@see self::duration()}; null where the sound is long enough
     *
     * @throws Failure where what is left of it is asked as well
     */
    private function asked(array $nearest): ?int
    {
        $perSecond = $this->source->picture()->picture->perSecond ?? 0.0;
        $own = Segment::total($this->track->timeline->from($this->start));
        $samples = TimePosition::parse($this->length->value, $this->from->rate, 0, $perSecond);
        $text = $this->spec->pieces ?? '';
        $isWord = str_starts_with($text, 'chapters') || str_starts_with($text, 'silences');
        $builder = new ShapeBuilder($this->from->layout, $this->from->rate, $own, $perSecond);
        $pieces = $isWord || $text === '' ? [] : $builder->pieces($text);
        $from = $pieces[0]->from ?? 0;
        $until = $from + $samples;
        if ($isWord || count($pieces) > 1 || isset($pieces[0]) && $pieces[0]->until < min($until, $own)) {
            throw (new Violations\LengthOfPieces(length: $this->length->value, nearest: $nearest))->at($this->source->path);
        }
        $this->pieces = $from === 0 && $until >= $own ? '' : sprintf('%d#-%d#', $from, $until);

        return $until <= $own ? null : $until;
    }

    /** A lossy source is never made larger and called better: it stays as it is where it is small enough. */
    private function isSmallEnough(RateControl $rateControl): bool
    {
        $asked = $rateControl->quality !== null ? 0 : $rateControl->kbps;

        return CodecModules::of($this->from->codec)->isLossless() || $this->spec->rateControl === null
            || EncoderChoice::kbps($this->track) <= $asked * EncoderChoice::SLACK;
    }

    /** Whether bits are lost that dither makes up for: whenever the result has fewer than 25 and is not just the source's own samples. */
    private static function needsDither(AudioFormat $from, AudioFormat $audio, Shape $shape): bool
    {
        if (! CodecModules::of($audio->codec)->isLossless() || $audio->pcm?->kind === SampleKind::Float || $audio->bits() > 24) {
            return false;
        }
        $isStraight = $shape->routing !== null || $from->layout->sounds($audio->layout)
            || $from->layout->placesWithin($audio->layout) !== null;
        $untouched = $from->rate === $audio->rate && ! $shape->changesValues() && $isStraight;

        $whole = CodecModules::of($from->codec)->wholeBits($from);

        return ! ($untouched && $whole > 0 && $whole <= $audio->bits());
    }
}
