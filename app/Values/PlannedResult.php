<?php

declare(strict_types=1);

namespace App\Values;

use App\Models\Source;
use Octavox\Core\Plan\Plan;
use Octavox\Core\Plan\PlannedSound;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Sound\Level;

/** What will become of one source: its plan, or why there is none. */
final readonly class PlannedResult
{
    /** @param  ?Layout  $layout  of the sound that comes in; null where there is none */
    private function __construct(public Source $source, public ?Plan $plan, public string $obstacle, public ?WayDrawing $way, public int $soundBytes, public ?Layout $layout)
    {
    }

    public static function planned(Source $source, Plan $plan, WayDrawing $way, int $soundBytes, ?Layout $layout): self
    {
        return new self($source, $plan, '', $way, $soundBytes, $layout);
    }

    public static function refused(Source $source, string $obstacle, ?Layout $layout = null): self
    {
        return new self($source, null, $obstacle, null, 0, $layout);
    }

    /** Channels of the sound that comes in; 0 where there is none. */
    public function channels(): int
    {
        return $this->layout?->count() ?? 0;
    }

    /** The most that the result can peak at by its map, from what was heard of the channels; null where that is not known. */
    public function highestPeak(): ?float
    {
        $measured = $this->plan === null ? null : $this->source->tracks->firstWhere('number', $this->plan->track)?->measured();
        $routing = $this->plan?->shape->routing;

        return $measured === null || $routing === null || $this->plan->shape->joined !== [] ? null : $routing->mix->highestPeak(array_map(fn (Level $level): float => $level->peak, $measured->levels));
    }

    /** Layout and form of what goes out; of a film with several sound tracks, those of each layout. */
    public function outcome(): string
    {
        $sounds = $this->plan?->sounds() ?? [];
        if ($this->plan?->isSilent() === true) {
            return 'picture without sound';
        }
        if ($this->plan === null || count($sounds) < 2) {
            return $this->plan === null ? '' : $this->plan->audio->layout->name().' · '.$this->plan->audio->label();
        }
        $layouts = array_count_values(array_map(fn (PlannedSound $sound): string => $sound->audio->layout->name(), $sounds));

        return sprintf('%d sound tracks: %s', count($sounds), implode(', ', array_map(fn (string $layout, int $count): string => $count === 1 ? $layout : $count.' × '.$layout, array_map(strval(...), array_keys($layouts)), $layouts)));
    }

    /** Width of the result's bar where the larger of both sizes is 100. */
    public function resultBar(): int
    {
        return $this->plan === null ? 0 : (int) max(2, round(100 * $this->plan->predictedBytes / max(1, $this->plan->predictedBytes, $this->soundBytes)));
    }

    public function sourceBar(): int
    {
        return $this->plan === null ? 0 : (int) max(2, round(100 * $this->soundBytes / max(1, $this->plan->predictedBytes, $this->soundBytes)));
    }
}
