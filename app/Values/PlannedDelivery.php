<?php

declare(strict_types=1);

namespace App\Values;

use App\Models\Source;
use Octavox\Core\Plan\Plan;

/** What will become of one source: its plan, or why there is none. */
final readonly class PlannedDelivery
{
    private function __construct(public Source $source, public ?Plan $plan, public string $obstacle, public ?WayDrawing $way, public int $soundBytes)
    {
    }

    public static function planned(Source $source, Plan $plan, WayDrawing $way, int $soundBytes): self
    {
        return new self($source, $plan, '', $way, $soundBytes);
    }

    public static function refused(Source $source, string $obstacle): self
    {
        return new self($source, null, $obstacle, null, 0);
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
