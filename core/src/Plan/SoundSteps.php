<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Segment;
use Octavox\Core\Media\Track;
use Octavox\Core\Order\Length;
use Octavox\Core\Sound\Channel;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Sound\Mix;
use Octavox\Core\Sound\NoStandardMix;
use Octavox\Core\Sound\Piece;
use Octavox\Core\Sound\Routing;
use Octavox\Core\Sound\TimePosition;

/** The steps by which one sound becomes what is planned. */
final readonly class SoundSteps
{
    /** Seconds of silence that somebody should know of. */
    private const LONG_SILENCE = 10;

    /**
     * @param  AudioFormat  $from  of the track
     * @param  list<Segment>  $whole  what is presented of the track
     * @param  int  $start  samples of the source's time at which the result begins
     * @param  Length  $length  that was asked for
     */
    public function __construct(private Track $track, private AudioFormat $from, private array $whole, private int $start,
        private Length $length) {}

    /** @return list<Step> */
    public function kept(SoundPlan $plan, bool $isAlone): array
    {
        $copied = new Step(new Steps\CopySound(format: CodecModules::describe($this->from)));
        $cut = $plan->shape->kept;
        if ($cut !== null) {
            $moved = new Step(new Steps\CutMoved(early: round(1000 * $cut->early / $this->from->rate, 3), late: round(1000 * $cut
                ->late / $this->from->rate, 3)));

            return [...$this->pieces($plan->shape), $copied, $cut->isExact() ? new Step(new Steps\CutExact) : $moved];
        }
        if (! $isAlone || $plan->shape->pieces !== []) {
            return [...$this->pieces($plan->shape), $copied];
        }

        return [$copied, ...$this->lengthened(), ...self::wholeFrames($plan->samples - Segment::total($this->whole))];
    }

    /**
     * @param  int  $more  samples that the file presents beyond what is encoded
     * @return list<Step>
     */
    public function remade(SoundPlan $plan, int $more): array
    {
        $audio = $plan->audio;
        $shape = $plan->shape;
        $rate = $this->from->rate;

        return [
            new Step(new Steps\Decode(format: CodecModules::describe($this->from), tracks: count($plan->tracks()))),
            ...$this->shifted(),
            ...$this->lengthened(),
            ...$this->pieces($shape),
            ...($shape->deemphasised === [] ? [] : [new Step(new Steps\Deemphasis(tracks: count($shape->deemphasised)))]),
            ...$this->channels($shape, $audio->layout),
            ...($shape->fadeIn > 0 || $shape->fadeOut > 0
                ? [new Step(new Steps\Fade(in: $shape->fadeIn / $rate, out: $shape->fadeOut / $rate))] : []),
            ...($shape->level !== null ? [new Step(new Steps\Level(target: (string) $shape->level))] : []),
            ...($rate !== $audio->rate ? [new Step(new Steps\Resample(from: $rate, rate: $audio->rate))] : []),
            ...($plan->dither
                ? [new Step(new Steps\Dither(bits: $audio->bits(), of: $this->from->bits() > $audio->bits()
                ? $this->from->bits() : 0))] : []),
            ...(! CodecModules::of($this->from->codec)->isLossless() && ! CodecModules::of($audio->codec)->isLossless()
            ? [new Step(new Steps\LossyAgain)] : []),
            self::encode($plan),
            ...self::wholeFrames($more),
        ];
    }

    /** @return list<Step> */
    public function filledSilence(): array
    {
        // What was asked for is no surprise.
        $silent = min(Segment::silent($this->whole), Segment::silent($this->track->timeline->from($this->start)));

        return $silent <= self::LONG_SILENCE * $this->from->rate ? []
            : [new Step(new Steps\FilledSilence(time: TimePosition::write($silent, $this->from->rate)))];
    }

    /** @return list<Step> where the source does not say where its channels belong, and the result does */
    public function assumedPlaces(SoundPlan $plan): array
    {
        $audio = $plan->audio;
        if ($this->from->layout->isPlaced() || ! $audio->layout->isPlaced() || $plan->shape->routing !== null
            || $this->from->channels() !== $audio->channels()) {
            return [];
        }
        $narrow = ! CodecModules::of($audio->codec)->isLossless() && in_array(Channel::LowFrequency, $audio->layout->channels, true);

        return [new Step(new Steps\AssumedPlaces(channels: $audio->layout->inMaskOrder()->names(), narrow: $narrow))];
    }

    private static function encode(SoundPlan $plan): Step
    {
        $codec = $plan->audio->codec;
        $rateControl = $plan->rateControl;
        $isLossless = CodecModules::of($codec)->isLossless();
        $hasKbps = ! $isLossless && $rateControl->quality === null;

        return new Step(new Steps\Encode(
            $isLossless ? CodecModules::describe($plan->audio) : CodecModules::of($codec)->label(),
            $isLossless ?: null,
            $isLossless ? null : $rateControl->quality,
            $hasKbps ? $rateControl->kbps : null,
            $hasKbps ? $rateControl->mode?->value : null,
            $plan->settings->stereo?->value,
            $plan->settings->checksums,
            $plan->settings->compression,
        ));
    }

    /** @return list<Step> */
    private static function wholeFrames(int $more): array
    {
        return $more > 0 ? [new Step(new Steps\WholeFrames(samples: $more))] : [];
    }

    /** @return list<Step> what laying it at the start of the picture does to it */
    private function shifted(): array
    {
        $shift = $this->track->timeline->startOffset - $this->start;

        return $shift === 0 ? []
            : [new Step($shift > 0 ? new Steps\SilenceBefore($shift / $this->from->rate) : new Steps\DropBefore(-$shift / $this->from
            ->rate))];
    }

    /** @return list<Step> what making it as long as the picture does to it */
    private function lengthened(): array
    {
        $more = Segment::total($this->whole) - Segment::total($this->track->timeline->from($this->start));

        if ($more === 0) {
            return [];
        }
        $facts = [abs($more) / $this->from->rate, $this->length->isTime() ? $this->length->value : null];

        return [new Step($more > 0 ? new Steps\SilenceAfter(...$facts) : new Steps\DropAfter(...$facts))];
    }

    /** @return list<Step> */
    private function pieces(Shape $shape): array
    {
        $write = fn (int $samples): string => TimePosition::write($samples, $this->from->rate);
        $total = array_sum(array_map(fn (Piece $piece): int => $piece->length(), $shape->pieces));

        return match (count($shape->pieces)) {
            0 => [],
            1 => [new Step(new Steps\Piece(from: $write($shape->pieces[0]->from), until: $write($shape->pieces[0]->until)))],
            default => [new Step(new Steps\Pieces(count: count($shape->pieces), total: $write($total)))],
        };
    }

    /** @return list<Step> */
    private function channels(Shape $shape, Layout $to): array
    {
        $label = $shape->label === '' ? [] : [new Step(new Steps\Label(label: $shape->label))];
        $mixed = new Step(new Steps\Mix(from: $this->from->layout->name(), layout: $to->name()));
        if ($shape->routing === null || $shape->routing->isStraight()) {
            return [...($this->from->layout->count() === $to->count() ? [] : [$mixed]), ...$label];
        }

        return [$this->isStandard($shape->routing) ? $mixed
            : new Step(new Steps\Route(channels: $this->sums($shape->routing), layout: $shape->routing->layout->name())), ...$label];
    }

    private function isStandard(Routing $routing): bool
    {
        try {
            return $this->from->layout->count() !== $routing->layout->count()
                && Mix::between($this->from->layout, $routing->layout)->gains === $routing->mix->gains;
        } catch (NoStandardMix) {
            return false;
        }
    }

    /** @return list<string> what each channel of the result takes, such as `L+R` or `−R` */
    private function sums(Routing $routing): array
    {
        $letters = fn (int $input): string => $this->from->layout->names()[$input] ?? (string) ($input + 1);

        return array_values(array_map(function (array $row) use ($letters): string {
            $heard = array_filter($row, fn (float $gain): bool => $gain !== 0.0);

            return $heard === [] ? 'silence'
                : implode('+', array_map(fn (int $input, float $gain): string => ($gain < 0 ? '−' : '').$letters($input),
                    array_keys($heard), $heard));
        }, $routing->mix->gains));
    }
}
