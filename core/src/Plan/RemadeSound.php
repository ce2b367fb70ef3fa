<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Codec\EncoderSettings;
use Octavox\Core\Container\Fidelity;
use Octavox\Core\Container\LateStart;
use Octavox\Core\Failure;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\SampleKind;
use Octavox\Core\Media\Segment;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Sound\Time;

/** Sound that is decoded, shaped and encoded anew. */
final readonly class RemadeSound
{
    public function __construct(private SoundContext $sound) {}

    /** @throws Failure */
    public function draft(Shape $shape, Layout $layout, EncoderSettings $settings): SoundDraft
    {
        $this->sound->requireRemaking();
        $audio = $this->sound->encoded($layout);
        $audio = $audio->withBitDepth(8 * intdiv($audio->bitDepth + 7, 8));
        $shape = $shape->inOrderOf($audio->layout, $this->sound->from->layout);
        if ($this->sound->video?->carriesSound($audio->codec === Codec::Pcm ? $audio : $audio->withConfig('x')) === false) {
            throw $this->sound->refuse(new Violations\VideoSound($this->sound->video->label(), CodecModules::describe($audio)));
        }
        $rateControl = $this->sound->encoder->rateControl($this->sound->spec->rateControl, $audio, $this->sound->track, $this->sound->from);
        $presented = Time::rescale(Segment::total($shape->cut($this->sound->whole)), $this->sound->from->rate, $audio->rate);
        if ($presented === 0) {
            throw $this->sound->refuse(new Violations\TooShort(track: $this->sound->numbers[0], rate: $audio->rate));
        }
        $samples = $this->sound->video === null ? $this->sound->format->presented($audio, $presented) : $presented;
        $dither = $this->sound->spec->dither !== false && self::needsDither($this->sound->from, $audio, $shape);
        $plan = $this->sound->plan(Action::Remade, $audio, $rateControl, $samples, $dither, $shape, $settings);
        $own = EncoderChoice::kbps($this->sound->track);
        $isLossyAgain = ! CodecModules::of($this->sound->from->codec)->isLossless() && ! CodecModules::of($audio->codec)->isLossless()
            && $own > 0
            && $rateControl->kbps > 0;
        // Where nobody asked for a rate, another codec gets what it needs.
        $isChosen = $isLossyAgain && $this->sound->spec->rateControl === null && $this->sound->from->codec !== $audio->codec;
        $isRaised = $isLossyAgain && ! $isChosen && $rateControl->kbps > $own * EncoderChoice::SLACK;
        $enough = $isChosen ? [new Step(new Steps\EnoughRate(kbps: $rateControl->kbps, format: CodecModules::of($audio->codec)->label(),
            own: round($own, 3), source: CodecModules::describe($this->sound->from)))] : [];

        $late = $this->sound->video === null && $this->sound->format instanceof LateStart ? $this->sound->format->startsLate($audio) : 0;

        return new SoundDraft($plan, [...$this->sound->steps()->remade($plan, $samples - $presented),
            ...$enough, ...$this->sound->late($late, $audio->rate)], [
                ...$this->sound->steps()->filledSilence(),
                ...$this->sound->steps()->assumedPlaces($plan),
                ...($isRaised ? [new Step(new Steps\RaisedRate(kbps: $rateControl->kbps, own: round($own, 3)))] : []),
            ], $this->bytes($plan));
    }

    private function bytes(SoundPlan $plan): int
    {
        $isLossless = $this->sound->format->capabilities()->fidelity === Fidelity::Lossless;
        $packed = $this->sound->knowledge->packed[$this->sound->numbers[0]] ?? null;
        if ($this->sound->video === null && $isLossless && $packed !== null) {
            return SizeForecast::lossless($packed->bits, $plan->audio, $plan->samples, $plan->dither);
        }
        $isAsPacked = $this->sound->video === null && $isLossless && CodecModules::of($this->sound->from->codec)->isLossless() && $this
            ->sound->from
            ->codec !== Codec::Pcm
            && $this->sound->track->codedBytes > 0
            && $plan->audio->rate === $this->sound->from->rate && $plan->audio->channels() === $this->sound->from->channels()
                && $plan->audio->bits() === $this->sound->from->bits();

        // What was compressed without loss becomes about as large in any other way of that.
        return $isAsPacked ? (int) ($this->sound->track->codedBytes * min(1.0, $plan->samples / max(1, Segment::total($this->sound
            ->whole))))
            + SizeForecast::LOSSLESS_HEAD
            : SizeForecast::following($packed, $plan->audio, $plan->samples,
                $this->sound->format->predict($plan->audio, $plan->rateControl, $plan->samples, $this->sound->tags($plan)));
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
