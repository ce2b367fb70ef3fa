<?php

declare(strict_types=1);

namespace App\Values;

use Octavox\Core\Plan\Action;
use Octavox\Core\Plan\Plan;
use Octavox\Core\Sound\Channel;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Sound\Mix;

/** The drawing of one sound's way from its channels to those of its result: lines as wide as the gain. */
final readonly class WayDrawing
{
    public const WIDTH = 300;

    private const STEP = 26;

    private const WIDEST = 7.0;

    /**
     * @param  list<WayEnd>  $from
     * @param  list<WayEnd>  $to
     * @param  list<WayLine>  $lines
     */
    private function __construct(public array $from, public array $to, public array $lines, public int $height, public bool $kept)
    {
    }

    public static function of(Layout $source, Plan $plan): self
    {
        $gains = Mix::between($source, $plan->form->layout)->gains;
        $height = self::STEP * max($source->count(), $plan->form->channels()) + 12;
        $from = self::ends($source, $height, 16);
        $to = self::ends($plan->form->layout, $height, self::WIDTH - 16);
        $lines = [];
        foreach ($gains as $out => $row) {
            foreach ($row as $in => $gain) {
                if ($gain > 0.0) {
                    $lines[] = new WayLine($from[$in]->y, $to[$out]->y, round(max(1.5, self::WIDEST * $gain), 1));
                }
            }
        }

        return new self($from, $to, $lines, $height, $plan->action === Action::Kept);
    }

    /** @return list<WayEnd> */
    private static function ends(Layout $layout, int $height, int $x): array
    {
        $top = ($height - self::STEP * ($layout->count() - 1)) / 2;
        // A single channel stands for the whole, not for the centre of several.
        $letters = fn (Channel $channel): string => $layout->count() === 1 ? 'M' : $channel->letters();

        return array_map(fn (Channel $channel, int $index): WayEnd => new WayEnd($x, (int) ($top + $index * self::STEP), $letters($channel)), $layout->channels, array_keys($layout->channels));
    }
}
