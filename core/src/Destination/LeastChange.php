<?php

declare(strict_types=1);

namespace Octavox\Core\Destination;

use Octavox\Core\Analysis\Measurements;
use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Codec\EnoughRate;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\Fidelity;
use Octavox\Core\Container\OutputFormat;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Container\Video\VideoOutputFormat;
use Octavox\Core\Container\Video\VideoOutputs;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Track;
use Octavox\Core\Name\Signs;
use Octavox\Core\Order\OutputSpec;
use Octavox\Core\Order\PictureChoice;
use Octavox\Core\Order\SoundSpec;
use Octavox\Core\Plan\OrderLine;
use Octavox\Core\Plan\OrderPlanner;
use Octavox\Core\Plan\Plan;
use Octavox\Core\Plan\PlannedLine;
use Octavox\Core\Plan\TagChanges;
use Octavox\Core\Reading\Reading;
use Octavox\Core\Sound\InvalidLevel;
use Octavox\Core\Tag\Broadcast;
use Octavox\Core\Tag\Cover;

/**
 * Finds the least that makes a source acceptable: nothing, another container around the same packets, or its sound remade. Each try is
 * planned, and what the plan would make is looked at with the very rules that look at files.
 */
final readonly class LeastChange
{
    /** What no destination refuses in a name. */
    private const PLAIN = '/[^A-Za-z0-9 ._()-]+/';

    /** Bytes left for the extension and for a number that tells two of one name apart. */
    private const NAME_ROOM = 10;

    private const USUAL_BITS = 16;

    private OutputSpec $asked;

    /**
     * @param  ?Measurements  $measured  of the first sound of the source; only a destination that looks at loudness wants it
     * @param  OutputSpec  $asked  what somebody wants besides; it lies over whatever is tried
     */
    public function __construct(private Destination $destination, private ?Measurements $measured = null,
        OutputSpec $asked = new OutputSpec)
    {
        $this->asked = $asked->without('place', 'if_exists', 'if_right');
    }

    /**
     * The spec that is found does not say what was asked besides, but for a name that had to be another one.
     *
     * @throws InvalidLevel
     */
    public function fit(Reading $source): Fit
    {
        return $this->fitLine(new OrderLine($source));
    }

    /** @throws InvalidLevel */
    public function fitLine(OrderLine $line): Fit
    {
        $source = $line->source;
        $violations = $this->destination->refuses(Facts::ofReading($source, $this->measured));
        $isThere = fn (Track $track): bool => $track->timeline->samples() > 0;
        if ($source->sound() !== [] && array_filter($source->sound(), $isThere) === []) {
            return new Fit(Change::Impossible, [...$violations, FitWords::nothingThere()], null, [FitWords::nothingThere()]);
        }
        $isAccepted = $violations === [] && $this->asked->without('name', 'name_signs')->isEmpty();
        $beyond = $isAccepted ? [] : $this->beyondHelp($source);
        if ($beyond !== []) {
            return new Fit(Change::Impossible, $violations, null, $beyond);
        }
        // To lose the picture is a greater change than any of the sound.
        $ways = $source->picture() === null ? [false] : [true, false];
        if ($violations === []) {
            $kept = $this->kept($line, $source->container, $ways[0]) ?? $this->kept($line, $source->container, false);
            if ($isAccepted || $kept !== null) {
                return new Fit(Change::None, [], $kept);
            }
        }
        $fewest = null;
        foreach ($ways as $isPictured) {
            $kept = $violations === [] ? null : $this->kept($line, null, $isPictured);
            if ($kept !== null) {
                return new Fit(Change::Remux, $violations, $kept);
            }
            foreach ($this->remakes($source, $isPictured) as $spec) {
                $planned = $this->plan($line, $spec);
                if ($planned->isWaiting()) {
                    return new Fit(Change::Remake, $violations, $spec);
                }
                $plan = $planned->plans[0] ?? null;
                if ($plan === null) {
                    $fewest ??= $planned->refusal === null ? null : [new Rejection(Rule::Asked, $planned->refusal->getMessage())];

                    continue;
                }
                [$named, $remaining] = $this->named($line, $spec, $plan);
                if ($remaining === []) {
                    return new Fit(Change::Remake, $violations, $named);
                }
                $fewest = $fewest !== null && count($fewest) <= count($remaining) ? $fewest : $remaining;
            }
        }

        return new Fit(Change::Impossible, $violations, null, $fewest ?? []);
    }

    /** @return list<Rejection> what only somebody can add, whatever is made of the sound: tags and a cover that are wanted */
    private function beyondHelp(Reading $source): array
    {
        $limits = $this->destination->limits;

        return [...$limits->missingTags(TagChanges::apply($this->asked, $source->tags)),
            ...$limits->missingCover(Cover::isGiven($this->asked->cover, $source->cover !== ''))];
    }

    /**
     * The first container in which all of it is kept and accepted.
     *
     * @param  ?string  $container  the only one that counts; null for any that is accepted
     *
     * @throws InvalidLevel
     */
    private function kept(OrderLine $line, ?string $container, bool $isPictured): ?OutputSpec
    {
        $source = $line->source;
        if (! $this->couldKeep($source)) {
            return null;
        }
        $wanted = $container === null
            ? array_merge(...array_map(fn (Acceptance $kind): array => $kind->containers, $this->destination->accepts))
            : [$container];
        $names = array_filter(array_map(fn (VideoOutputFormat|OutputFormat $one): string => $one->name(),
            $isPictured ? VideoOutputs::all() : Outputs::all()),
            fn (string $name): bool => in_array(Facts::containerOf($name), $wanted, true));
        foreach ($names as $name) {
            $spec = new OutputSpec($name, VideoOutputs::named($name) === null ? PictureChoice::Leave : PictureChoice::Keep);
            if ($this->destination->limits->broadcast && Outputs::named($name)?->capabilities()->holdsBroadcast === true) {
                $spec = $spec->withBroadcast(new Broadcast);
            }
            $planned = $this->plan($line, $spec);
            if ($planned->isWaiting()) {
                return $spec;
            }
            $plan = $planned->plans[0] ?? null;
            if ($plan === null || ! $plan->isKept() || $container !== null && Facts::ofPlan($plan, $source)->container !== $container) {
                continue;
            }
            [$named, $remaining] = $this->named($line, $spec, $plan);
            if ($remaining === []) {
                return $named;
            }
        }

        return null;
    }

    /** Whether any kind of file takes the packets as they are: else no container helps, and none needs to be tried. */
    private function couldKeep(Reading $source): bool
    {
        $first = $source->sound()[0] ?? null;
        $isOther = array_filter($this->asked->sounds, fn (SoundSpec $sound): bool => $sound->tracks !== null) !== [];
        if ($first?->sound === null || $isOther) {
            return true;
        }
        $kbps = Facts::kbps($first);
        foreach ($this->destination->accepts as $kind) {
            if ($kind->refusesSound($first->sound, $kbps) === []) {
                return true;
            }
        }

        return false;
    }

    /** @return iterable<OutputSpec> the recipe of the destination, brought to what it accepts and to what the source has, best first */
    private function remakes(Reading $source, bool $isPictured): iterable
    {
        $audio = ($source->sound()[0] ?? null)?->sound;
        $recipe = $isPictured ? $this->destination->specWithPicture : $this->destination->spec;
        if ($audio === null || $recipe === null) {
            return;
        }
        foreach ($this->destination->accepts as $kind) {
            $fitted = $this->fitted($recipe, $kind, $audio, $source);
            if ($fitted->picture === PictureChoice::Keep && count($source->sound()) > 1) {
                yield $this->eachTrack($fitted, $recipe, $kind, $source);
            }
            yield $fitted;
        }
    }

    /** Beside a picture each sound track for itself: one that is accepted is kept, whatever becomes of the others. */
    private function eachTrack(OutputSpec $whole, OutputSpec $recipe, Acceptance $kind, Reading $source): OutputSpec
    {
        $sounds = [];
        foreach ($source->sound() as $track) {
            if ($track->sound !== null) {
                $isAccepted = $kind->refusesSound($track->sound, Facts::kbps($track)) === [];
                $sounds[] = ($isAccepted ? new SoundSpec(codec: 'keep') : $this->sound($recipe, $kind, $track->sound, $track))
                    ->withTracks((string) $track->number);
            }
        }

        return $whole->withSounds($sounds);
    }

    private function fitted(OutputSpec $recipe, Acceptance $kind, AudioFormat $audio, Reading $source): OutputSpec
    {
        // The same packets begin where they should in a file that can say so.
        $isBetter = $recipe->container === 'adts' && in_array(Facts::containerOf('aac'), $kind->containers, true);
        $recipe = $isBetter ? $recipe->withContainer('aac') : $recipe;

        $isVideo = $recipe->container !== null && VideoOutputs::named($recipe->container) !== null;

        return $recipe->withSounds([$this->sound($recipe, $kind, $audio, $source->sound()[0] ?? null)])
            ->withPicture($recipe->picture ?? ($isVideo ? PictureChoice::Keep : PictureChoice::Leave));
    }

    private function sound(OutputSpec $recipe, Acceptance $kind, AudioFormat $audio, ?Track $track): SoundSpec
    {
        $sound = $recipe->sounds()[0];
        $rate = $kind->rateFor($sound->rate ?? $audio->rate);
        $kbps = $this->kbps($recipe, $kind, $track);
        $wanted = new SoundSpec(
            rateControl: $kbps === null ? null : RateControl::near($kbps),
            rate: $rate === $audio->rate ? null : $rate,
            // What was lossy becomes samples of the usual depth, or of the next that is accepted.
            bitDepth: $sound->bitDepth ?? ($kind->bitDepths === [] ? null : $kind->bitDepthFor($audio->bits() ?: self::USUAL_BITS)),
            layout: $sound->layout ?? self::layout($kind, $audio),
        );

        return $wanted->over($sound);
    }

    /** The layout that the sound is brought to; null where its own is taken. */
    private static function layout(Acceptance $kind, AudioFormat $audio): ?string
    {
        $fits = ($kind->mostChannels === null || $audio->channels() <= $kind->mostChannels)
            && ($kind->layouts === [] || in_array($audio->layout->name(), $kind->layouts, true));
        $takesStereo = ($kind->mostChannels ?? 2) > 1 && ($kind->layouts === [] || in_array('stereo', $kind->layouts, true));

        return $fits ? null : ($takesStereo ? 'stereo' : 'mono');
    }

    /** Never more than a source that is lossy already has or needs, never less than what is accepted. */
    private function kbps(OutputSpec $recipe, Acceptance $kind, ?Track $track): ?int
    {
        $asked = $recipe->sounds()[0]->rateControl->kbps ?? 0;
        $format = Outputs::named((string) ($recipe->sounds()[0]->codec ?? $recipe->container));
        if ($track?->sound === null || $asked === 0 || $format?->capabilities()->fidelity !== Fidelity::Lossy) {
            return null;
        }
        $own = Facts::kbps($track) ?? $asked;
        $audio = $format->audio($track->sound, $track->sound->rate, $track->sound->layout, null);
        // Within its codec no more than the source has; in another what that needs for the same sound.
        $enough = $track->sound->codec === $audio->codec ? (int) max(1, round($own)) : EnoughRate::kbps($track->sound, $own, $audio);
        $steps = array_filter($format->capabilities()->kbps, fn (int $step): bool => $step >= $enough);
        $isOther = $track->sound->codec !== $audio->codec;
        $most = CodecModules::of($track->sound->codec)->isLossless() ? $asked : min($asked, $isOther && $steps !== [] ? min($steps)
            : $enough);

        return min($kind->mostKbps ?? PHP_INT_MAX, max($kind->leastKbps ?? 0, $most));
    }

    /**
     * A name that is refused is no reason to refuse the sound: it gets one that is accepted.
     *
     * @return array{OutputSpec, list<Rejection>} the spec, and what would still be refused
     *
     * @throws InvalidLevel
     */
    private function named(OrderLine $line, OutputSpec $spec, Plan $plan): array
    {
        $source = $line->source;
        $remaining = $this->destination->refuses(Facts::ofPlan($plan, $source, $this->measured));
        $isRefused = fn (Rule $rule): bool => array_filter($remaining, fn (Rejection $one): bool => $one->rule === $rule) !== [];
        if ($this->destination->limits->plainTags && $isRefused(Rule::Tags) && $spec->tagSigns === null) {
            $clean = $spec->withTagSigns(Signs::Remove);
            $planned = $this->plan($line, $clean)->plans[0] ?? null;

            return $planned === null ? [$spec, $remaining] : $this->named($line, $clean, $planned);
        }
        if (! $isRefused(Rule::Name)) {
            return [$spec, $remaining];
        }
        $stem = pathinfo($plan->name(), PATHINFO_FILENAME);
        $limits = $this->destination->limits;
        $stem = $limits->plainName ? trim((string) preg_replace(self::PLAIN, '-', $stem), ' -.') : strtr($stem, '{}', '()');
        $stem = trim(mb_strcut($stem, 0, ($limits->mostNameBytes ?? 255) - self::NAME_ROOM));
        $folders = strtr(ltrim($plan->target->folder, '/'), '{}[]', '()()');
        $other = $spec->withName(($folders === '' ? '' : $folders.'/').($stem === '' ? 'sound' : $stem));
        $planned = $this->plan($line, $other, true)->plans[0] ?? null;

        return $planned === null ? [$spec, $remaining]
            : [$other, $this->destination->refuses(Facts::ofPlan($planned, $source, $this->measured))];
    }

    /**
     * @param  bool  $isRenamed  whether the name of the spec counts whatever was asked
     *
     * @throws InvalidLevel
     */
    private function plan(OrderLine $line, OutputSpec $spec, bool $isRenamed = false): PlannedLine
    {
        $asked = $isRenamed ? $this->asked->withName(null) : $this->asked;

        return OrderPlanner::plan([new OrderLine($line->source, $asked, $line->knowledge, $line->label)], $spec->withPlace('/'))[0];
    }
}
