<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Codec\CodecNotDecodable;
use Octavox\Core\Codec\Codecs;
use Octavox\Core\Codec\EncoderSettings;
use Octavox\Core\Codec\PlausibleLength;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\OutputFormat;
use Octavox\Core\Container\Video\VideoOutputFormat;
use Octavox\Core\Failure;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\PresentationStart;
use Octavox\Core\Media\Segment;
use Octavox\Core\Media\Track;
use Octavox\Core\Order\Length;
use Octavox\Core\Order\SoundSpec;
use Octavox\Core\Reading\Reading;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Tag\Tags;

/** One sound that is planned: the tracks that it is taken from as one, and what is presented of it. */
final readonly class SoundContext
{
    public AudioFormat $from;

    public Reading $source;

    public SoundSpec $spec;

    public Length $length;

    public OutputFormat $format;

    public ?VideoOutputFormat $video;

    public SourceKnowledge $knowledge;

    public MissingFacts $wanted;

    public EncoderChoice $encoder;

    /** @var list<Segment> what is presented of the track */
    public array $whole;

    /**
     * @param  non-empty-list<int>  $numbers  of the tracks whose channels are taken together
     * @param  Track  $track  they, as one
     * @param  int  $start  samples of the source's time at which the result begins
     * @param  PlannedLength  $planned  how long it becomes, and what of it that leaves
     */
    private function __construct(SoundRequest $request, public array $numbers, public Track $track, AudioFormat $from, public int $start,
        public PlannedLength $planned)
    {
        $this->from = $from;
        $this->source = $request->source;
        $this->spec = $request->spec;
        $this->length = $request->length;
        $this->format = $request->format;
        $this->video = $request->video;
        $this->knowledge = $request->knowledge;
        $this->wanted = $request->wanted;
        $this->encoder = new EncoderChoice($request->format, $request->source->path);
        $this->whole = $track->timeline->from($start, $planned->duration);
    }

    /**
     * @param  non-empty-list<int>  $numbers  of the tracks whose channels are taken together
     *
     * @throws Failure why it is not possible
     */
    public static function taking(SoundRequest $request, array $numbers): self
    {
        $source = $request->source;
        $tracks = array_map(fn (int $number): Track => $source->track($number)
            ?? throw (new Violations\NoTrack(track: $number))->at($source->path), $numbers);
        $track = $tracks[0];
        $from = $track->sound ?? throw (new Violations\NoSound)->at($source->path);
        $start = PresentationStart::find($source->tracks, $from->rate);
        if (count($tracks) > 1) {
            $track = JoinedTracks::asOne($source->path, $tracks, $start);
            $from = $track->sound ?? $from;
        }
        $self = new self($request, $numbers, $track, $from, $start, PlannedLength::of($request, $track, $from, $start));
        $self->requireSound();

        return $self;
    }

    public function refuse(Violation $violation): CannotPlan
    {
        return $violation->at($this->source->path);
    }

    public function plan(Action $action, AudioFormat $audio, RateControl $rateControl, int $samples, bool $dither, Shape $shape,
        EncoderSettings $settings = new EncoderSettings): SoundPlan
    {
        return new SoundPlan($this->numbers[0], $this->start, $this->planned->duration, $action, $audio, $rateControl, $samples, $dither,
            $shape, $settings);
    }

    public function steps(): SoundSteps
    {
        return new SoundSteps($this->track, $this->from, $this->whole, $this->start, $this->length);
    }

    /**
     * @param  int  $samples  by which other programs start it late
     * @return list<Step>
     */
    public function late(int $samples, int $rate): array
    {
        return $samples > 0 ? [new Step(new Steps\LateStart(samples: $samples, rate: $rate))] : [];
    }

    public function tags(SoundPlan $plan): Tags
    {
        return $this->video !== null ? $this->source->tags : $this->source->tags->withLabel($plan->shape->label)
            ->withChapters(ResultChapters::place($this->source->chapters, $this->from->rate, $this->start,
                Segment::total($this->whole), $plan->shape));
    }

    /** @throws Failure where the format has no such sound */
    public function encoded(Layout $layout): AudioFormat
    {
        $most = $this->format->capabilities()->mostChannels;
        if ($layout->count() > $most) {
            throw $this->refuse(new Violations\Channels($this->format->label(), $most, $layout->name(),
                $most === 1 ? ['mono'] : ['stereo', 'mono']));
        }

        return $this->format->audio($this->from, $this->encoder->rate($this->spec->rate, $this->from->rate), $layout,
            $this->spec->bitDepth);
    }

    /** @throws Failure where the sound cannot be decoded or the format cannot be encoded */
    public function requireRemaking(): void
    {
        if (! Codecs::canDecode($this->from)) {
            throw CodecNotDecodable::of($this->from);
        }
        if (! $this->format->capabilities()->makes) {
            throw $this->refuse(new Violations\OnlyKept(format: $this->format->label(), source: CodecModules::describe($this->from)));
        }
    }

    /** @throws Failure where there is no sound, or next to nothing but silence would be made */
    private function requireSound(): void
    {
        if (Segment::areEmpty($this->whole)) {
            if ($this->video === null) {
                $this->requireRemaking();
            }
            throw $this->refuse(new Violations\EmptyTrack(track: $this->numbers[0]));
        }
        $silent = Segment::silent($this->whole);
        $isMuch = $silent > max(PlausibleLength::MOST_SILENCE * $this->from->rate,
            PlausibleLength::MUCH_MORE * (Segment::total($this->whole) - $silent));
        if ($isMuch || PlausibleLength::isExceeded($this->track, $this->whole, $this->source->bytes)) {
            $hours = ($isMuch ? $silent : Segment::total($this->whole)) / $this->from->rate / 3600;
            throw $this->refuse(new Violations\Silence($this->numbers[0], $hours));
        }
    }
}
