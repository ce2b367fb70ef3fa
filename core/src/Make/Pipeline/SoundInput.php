<?php

declare(strict_types=1);

namespace Octavox\Core\Make\Pipeline;

use Octavox\Core\Decode\JoinedDecoder;
use Octavox\Core\Decode\TrackDecoder;
use Octavox\Core\Failure;
use Octavox\Core\Make\SourceChanged;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Segment;
use Octavox\Core\Media\Track;
use Octavox\Core\Plan\CannotPlan;
use Octavox\Core\Plan\JoinedTracks;
use Octavox\Core\Plan\SoundPlan;
use Octavox\Core\Reading\OpenedSource;
use Octavox\Core\Sound\Block;

/** What goes into one planned sound: the opened source, the track or tracks it is made of, and the plan. */
final readonly class SoundInput
{
    /**
     * @param  AudioFormat  $from  of what is decoded: of several tracks taken together their channels side by side
     * @param  non-empty-list<Track>  $tracks
     */
    private function __construct(public OpenedSource $source, public AudioFormat $from, public array $tracks, public SoundPlan $plan) {}

    /**
     * @throws SourceChanged where the tracks are not there any more
     * @throws CannotPlan
     */
    public static function of(OpenedSource $source, SoundPlan $plan): self
    {
        $path = $source->media->source()->name();
        $tracks = array_map(fn (int $number): Track => $source->track($number) ?? throw SourceChanged::track($path), $plan->tracks());
        $from = count($tracks) === 1 ? $tracks[0]->sound : JoinedTracks::asOne($path, $tracks, $plan->presentationStart)->sound;

        return new self($source, $from ?? throw SourceChanged::track($path), $tracks, $plan);
    }

    public function path(): string
    {
        return $this->source->media->source()->name();
    }

    /** The track of a sound that is made of one. */
    public function track(): Track
    {
        return $this->tracks[0];
    }

    /** @return list<Segment> what is presented of the one track, with its pieces cut out */
    public function segments(): array
    {
        return $this->plan->shape->cut($this->track()->timeline->from($this->plan->presentationStart, $this->plan->duration));
    }

    /** Samples of the source that go into the result. */
    public function length(): int
    {
        return Segment::total($this->cuts()[0] ?? []);
    }

    /**
     * The decoded sound as it comes in.
     *
     * @param  int  $begins  the sample from which on it is wanted; 0 where several tracks are taken together
     * @return iterable<Block>
     *
     * @throws Failure
     */
    public function blocks(int $begins = 0): iterable
    {
        if (count($this->tracks) > 1) {
            return (new JoinedDecoder($this->source, $this->tracks))->blocks($this->cuts());
        }
        $segments = $this->segments();

        return (new TrackDecoder($this->source->media, $this->track(), $this->source->damage))
            ->blocks($begins === 0 ? $segments : Segment::between($segments, $begins, Segment::total($segments)));
    }

    /** @return list<list<Segment>> of each track, all of one length */
    private function cuts(): array
    {
        return count($this->tracks) === 1 ? [$this->segments()]
            : array_map($this->plan->shape->cut(...),
                JoinedTracks::segments($this->tracks, $this->plan->presentationStart, $this->plan->duration));
    }
}
