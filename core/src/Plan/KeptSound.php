<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Codec\Codecs;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\LateStart;
use Octavox\Core\Failure;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\BordersQuery;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Segment;
use Octavox\Core\Sound\Layout;

/** Sound whose packets or samples are copied as they are. */
final readonly class KeptSound
{
    public function __construct(private SoundContext $sound) {}

    /** Beside a picture sound is kept where the container carries it and nothing else is asked. */
    public function besidePicture(Shape $shape): ?SoundPlan
    {
        $spec = $this->sound->spec;
        $isUntouched = ! $shape->changesSamples() && in_array($spec->codec, [null, 'keep'], true)
            && in_array($spec->rate, [null, $this->sound->from->rate], true) && $spec->bitDepth === null;
        $segments = $this->sound->whole;
        $coded = array_filter($segments, fn (Segment $segment): bool => $segment->from !== null);
        // One stretch of the coded sound, after silence or at once: what an edit or a time stamp can say.
        $isOne = count($coded) === 1 && $segments[count($segments) - 1]->from !== null && count($segments) <= 2;

        return $isUntouched && $isOne && $this->sound->video?->carriesSound($this->sound->from) === true
            ? $this->sound->plan(Action::Kept, $this->sound->from, RateControl::none(), $segments[count($segments) - 1]->length, false,
                new Shape) : null;
    }

    /** @throws Failure where what is asked is not possible whether it is kept or not */
    public function inFile(Shape $shape, Layout $layout): ?SoundPlan
    {
        // What an encoder can do does not bind what is only copied.
        $stays = $this->sound->from->pcm === null && $this->sound->format->carries($this->sound->from)
            && in_array($this->sound->spec->rate, [null, $this->sound->from->rate], true)
            && in_array($this->sound->spec->bitDepth, [null, $this->sound->from->bits()], true) && $layout->name() === $this->sound->from
                ->layout->name();
        $audio = $stays ? $this->sound->from : $this->sound->encoded($layout);
        $rateControl = $this->sound->encoder->rateControl($this->sound->spec->rateControl, $audio, $this->sound->track, $this->sound->from);
        $shape = $shape->inOrderOf($audio->layout, $this->sound->from->layout);
        $segments = $shape->cut($this->sound->whole);
        $isCarried = $this->sound->format->carries($this->sound->from) && $this->sound->from->codec === $audio->codec && $this->sound->from
            ->rate === $audio->rate
            && $this->sound->from->layout->sounds($audio->layout);
        if (! $isCarried || $shape->changesSamples()) {
            return null;
        }
        if ($this->sound->from->pcm !== null) {
            return $this->pcm($audio, $shape, $segments);
        }
        if (count($segments) !== 1 || $segments[0]->from === null || ! $this->isSmallEnough($rateControl)) {
            return null;
        }
        if ($shape->pieces !== []) {
            $cut = count($shape->pieces) === 1 ? $this->cut($audio, $segments[0]) : null;

            return $cut === null ? null
                : $this->sound->plan(Action::Kept, $this->sound->from, RateControl::none(), $cut->samples, false, $shape->keeping($cut));
        }
        $samples = $this->sound->format->presentedKept($audio, $this->sound->track->timeline->coded, $segments[0]->from, $segments[0]
            ->length);
        $isNarrower = CodecModules::of($this->sound->from->codec)->isLossless() && $audio->bitDepth !== $this->sound->from->bitDepth;

        return $samples === null || $isNarrower || $this->sound->length->isOfPicture() && $samples !== $segments[0]->length
            ? null : $this->sound->plan(Action::Kept, $this->sound->from, RateControl::none(), $samples, false, $shape);
    }

    public function draft(SoundPlan $plan): SoundDraft
    {
        $doubts = $this->sound->video?->doubts($this->sound->from);

        // What an encoder put first stays, and nothing tells any more that it is to be left out.
        $isLate = $this->sound->video === null && $this->sound->format instanceof LateStart && $plan->shape->kept === null;
        $late = $isLate ? max(0, $this->sound->whole[0]->from ?? 0) : 0;

        return new SoundDraft($plan, [...$this->sound->steps()->kept($plan, $this->sound->video === null), ...$this->sound->late($late,
            $plan->audio->rate)], [
                ...$this->sound->steps()->filledSilence(), ...($doubts === null ? [] : [new Step(new Steps\DoubtfulSound(says: $doubts))]),
            ], $this->bytes($plan));
    }

    /** @param  list<Segment>  $segments  what is wanted of the track */
    private function pcm(AudioFormat $audio, Shape $shape, array $segments): ?SoundPlan
    {
        $isSame = $audio->pcm !== null && $this->sound->from->pcm?->equals($audio->pcm) === true
            && $this->sound->from->layout->placesOf($audio->layout) === array_keys($audio->layout->channels);

        return $isSame && Segment::silent($segments) === 0
            ? $this->sound->plan(Action::Kept, $audio, RateControl::none(), Segment::total($segments), false, $shape) : null;
    }

    /** Which packets are copied of one piece; null where it is encoded anew. */
    private function cut(AudioFormat $audio, Segment $segment): ?KeptCut
    {
        if (Codecs::trimmer($this->sound->from->codec) === null) {
            return null;
        }
        $from = (int) $segment->from;
        $query = new BordersQuery($this->sound->numbers[0], $from, $from + $segment->length);
        $borders = $this->sound->knowledge->borders[$query->key()] ?? null;
        if ($borders === null) {
            $this->sound->wanted->borders[$query->key()] = $query;

            return null;
        }
        $cut = KeptCut::around($borders, $this->sound->from, $this->sound->format, $from, $from + $segment->length);
        // Encoding anew is only more exact where the file can say what not to present.
        $isMoreExact = $this->sound->spec->exact === true && $cut?->isExact() === false
            && $this->sound->format->presented($audio, $segment->length) === $segment->length;

        return $isMoreExact ? null : $cut;
    }

    /** A lossy source is never made larger and called better: it stays as it is where it is small enough. */
    private function isSmallEnough(RateControl $rateControl): bool
    {
        $asked = $rateControl->quality !== null ? 0 : $rateControl->kbps;

        return CodecModules::of($this->sound->from->codec)->isLossless() || $this->sound->spec->rateControl === null
            || EncoderChoice::kbps($this->sound->track) <= $asked * EncoderChoice::SLACK;
    }

    private function bytes(SoundPlan $plan): int
    {
        return match (true) {
            $this->sound->video !== null => $this->sound->track->codedBytes,
            $plan->audio->codec === Codec::Pcm => $this->sound->format->predict($plan->audio, RateControl::none(), $plan->samples,
                $this->sound->tags($plan)),
            default => (int) ($this->sound->track->codedBytes * min(1.0, $plan->samples / max(1, Segment::total($this->sound->whole))))
                + SizeForecast::KEPT_HEAD,
        };
    }
}
