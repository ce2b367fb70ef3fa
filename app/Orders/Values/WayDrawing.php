<?php

declare(strict_types=1);

namespace App\Orders\Values;

use Octavox\Core\Plan\Plan;
use Octavox\Core\Plan\SoundPlan;
use Octavox\Core\Reading\Reading;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Sound\NoStandardMix;

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
    private function __construct(public array $from, public array $to, public array $lines, public int $height, public bool $kept) {}

    /**
     * Each sound track of a video has its own stretch of the drawing, one beneath the other.
     *
     * @throws NoStandardMix
     */
    public static function of(Reading $source, Plan $plan): self
    {
        $from = [];
        $to = [];
        $lines = [];
        $top = 0;
        foreach ($plan->sounds as $sound) {
            $layout = self::incoming($source, $sound);
            $height = self::STEP * max($layout->count(), $sound->audio->channels()) + 12;
            $in = self::ends($layout, $top, $height, 16);
            $out = self::ends($sound->audio->layout, $top, $height, self::WIDTH - 16);
            foreach ($sound->shape->mix($layout, $sound->audio->layout)->gains as $target => $row) {
                foreach ($row as $origin => $gain) {
                    if ($gain !== 0.0) {
                        $lines[] = new WayLine($in[$origin]->y, $out[$target]->y, round(max(1.5, self::WIDEST * min(1.5, abs($gain))), 1),
                            $sound->isKept());
                    }
                }
            }
            array_push($from, ...$in);
            array_push($to, ...$out);
            $top += $height;
        }

        return new self($from, $to, $lines, max($top, self::STEP), $plan->isKept());
    }

    /** Channels of the first sound that comes in; null where there is none. */
    public static function arriving(Reading $source, Plan $plan): ?Layout
    {
        $sound = $plan->sound();

        return $sound === null ? null : self::incoming($source, $sound);
    }

    /** Channels that come in, of all tracks that are taken together. */
    public static function incoming(Reading $source, SoundPlan $sound): Layout
    {
        $own = $source->track($sound->track)->sound->layout ?? $sound->audio->layout;
        $more = array_sum(array_map(fn (int $number): int => $source->track($number)?->sound?->channels() ?? 0, $sound->shape->joined));

        return $more === 0 ? $own : Layout::undeclared($own->count() + $more);
    }

    /** @return list<WayEnd> */
    private static function ends(Layout $layout, int $begin, int $height, int $x): array
    {
        $top = $begin + ($height - self::STEP * ($layout->count() - 1)) / 2;

        return array_map(fn (string $name, int $index): WayEnd => new WayEnd($x, (int) ($top + $index * self::STEP), $name),
            $layout->names(), array_keys($layout->channels));
    }
}
