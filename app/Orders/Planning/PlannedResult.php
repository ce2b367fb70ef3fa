<?php

declare(strict_types=1);

namespace App\Orders\Planning;

use App\Lists\Humanize;
use App\Orders\Values\WayDrawing;
use App\Sources\Models\Source;
use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Plan\Plan;
use Octavox\Core\Plan\PlanWords;
use Octavox\Core\Plan\SoundPlan;
use Octavox\Core\Reading\Reading;
use Octavox\Core\Sound\InvalidLevel;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Sound\Level;
use Octavox\Core\Sound\NoStandardMix;

/** What will become of one source: its plan, or why there is none. */
final readonly class PlannedResult
{
    /**
     * @param  ?Layout  $layout  of the sound that comes in; null where there is none
     * @param  bool  $isWaiting  whether something is still being found out, so that there is no plan yet
     * @param  bool  $isRight  whether there is none because the source is right as it is
     */
    private function __construct(public Source $source, public ?Plan $plan, public string $obstacle, private ?Reading $facts,
        public int $soundBytes, public ?Layout $layout, public bool $isWaiting = false, public bool $isRight = false) {}

    public static function planned(Source $source, Plan $plan, Reading $facts, int $soundBytes, ?Layout $layout): self
    {
        return new self($source, $plan, '', $facts, $soundBytes, $layout);
    }

    /**
     * The drawing of its way; only what is looked at is drawn.
     *
     * @throws NoStandardMix
     */
    public function way(): ?WayDrawing
    {
        return $this->plan === null || $this->facts === null ? null : WayDrawing::of($this->facts, $this->plan);
    }

    public static function refused(Source $source, string $obstacle, ?Layout $layout = null): self
    {
        return new self($source, null, $obstacle, null, 0, $layout);
    }

    public static function waiting(Source $source, string $says, ?Layout $layout): self
    {
        return new self($source, null, $says, null, 0, $layout, true);
    }

    public static function right(Source $source, string $says, ?Layout $layout): self
    {
        return new self($source, null, $says, null, 0, $layout, isRight: true);
    }

    /** Folders of the result beneath a place, and its name. */
    public function shownPath(string $beneath): string
    {
        $path = $this->plan?->path() ?? '';

        return str_starts_with($path, rtrim($beneath, '/').'/') ? substr($path, strlen(rtrim($beneath, '/')) + 1) : $path;
    }

    /**
     * @return list<string>
     *
     * @throws InvalidLevel
     */
    public function steps(): array
    {
        return $this->plan === null ? [] : PlanWords::steps($this->plan);
    }

    /**
     * @return list<string>
     *
     * @throws InvalidLevel
     */
    public function warnings(): array
    {
        return $this->plan === null ? [] : PlanWords::warnings($this->plan);
    }

    /** Length and rate of what goes out. */
    public function measure(): string
    {
        $sound = $this->plan?->sound();

        return $this->plan === null ? ''
            : implode(' · ', array_filter([Humanize::clock($this->plan->seconds()), Humanize::rate($sound?->audio->rate),
                $this->outcome()]));
    }

    /** Channels of the sound that comes in; 0 where there is none. */
    public function channels(): int
    {
        return $this->layout?->count() ?? 0;
    }

    /**
     * The most that the result can peak at by its map, from what was measured of the channels; null where that is not known or a level is
     * set.
     */
    public function highestPeak(): ?float
    {
        $sound = $this->plan?->sound();
        $routing = $sound?->shape->routing;
        $measured = $sound === null ? null : $this->source->tracks->firstWhere('number', $sound->track)?->measured();
        if ($measured === null || $routing === null || $sound->shape->level !== null || $sound->shape->joined !== []) {
            return null;
        }

        return $routing->mix->highestPeak(array_map(fn (Level $level): float => $level->peak, $measured->levels));
    }

    /** Layout and format of what goes out; of a video with several sound tracks, those of each layout. */
    private function outcome(): string
    {
        $sounds = $this->plan->sounds ?? [];
        if (count($sounds) < 2) {
            return $sounds === [] ? 'picture without sound' : $sounds[0]->audio->layout->name().' · '.CodecModules::describe($sounds[0]
                ->audio);
        }
        $layouts = array_count_values(array_map(fn (SoundPlan $sound): string => $sound->audio->layout->name(), $sounds));
        $words = array_map(fn (string $layout, int $count): string => $count === 1 ? $layout : $count.' × '.$layout,
            array_map(strval(...), array_keys($layouts)), $layouts);

        return sprintf('%d sound tracks: %s', count($sounds), implode(', ', $words));
    }

    public function predictedBytes(): int
    {
        return $this->plan->target->predictedBytes ?? 0;
    }

    /** Width of the result's bar where the larger of both sizes is 100. */
    public function resultBar(): int
    {
        return $this->bar($this->predictedBytes());
    }

    public function sourceBar(): int
    {
        return $this->bar($this->soundBytes);
    }

    private function bar(int $bytes): int
    {
        return $this->plan === null ? 0 : (int) max(2, round(100 * $bytes / max(1, $this->predictedBytes(), $this->soundBytes)));
    }
}
