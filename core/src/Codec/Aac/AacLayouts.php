<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Aac;

use Octavox\Core\Sound\Channel;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Sound\LayoutNotCarried;

/** The arrangements of channels that AAC has a number for, and the order in which it codes them: ISO/IEC 14496-3, table 1.19. */
final class AacLayouts
{
    /** Number of the arrangement by the number of channels; seven has none. */
    private const CONFIGURATIONS = [1 => 1, 2 => 2, 3 => 3, 4 => 4, 5 => 5, 6 => 6, 8 => 7];

    /** What codes the channels, in their order: one channel, a pair, or low frequencies. */
    private const ELEMENTS = [3 => [1, 2], 4 => [1, 2, 1], 5 => [1, 2, 2], 6 => [1, 2, 2, 0], 8 => [1, 2, 2, 2, 0]];

    /** @return list<Layout> with more than two channels, rising */
    public static function all(): array
    {
        return array_map(self::layout(...), [3, 4, 5, 6, 8]);
    }

    public static function layout(int $channels): Layout
    {
        [$l, $r, $c, $f, $ls, $rs] = [Channel::Left, Channel::Right, Channel::Centre, Channel::LowFrequency, Channel::SideLeft,
            Channel::SideRight];

        return match ($channels) {
            3 => Layout::of($c, $l, $r),
            4 => Layout::of($c, $l, $r, Channel::BackCentre),
            5 => Layout::of($c, $l, $r, $ls, $rs),
            6 => Layout::of($c, $l, $r, $ls, $rs, $f),
            8 => Layout::of($c, $l, $r, $ls, $rs, Channel::BackLeft, Channel::BackRight, $f),
            default => Layout::undeclared($channels),
        };
    }

    /**
     * The arrangement that holds the channels of a layout.
     *
     * @throws LayoutNotCarried
     */
    public static function carrying(Layout $layout, string $format): Layout
    {
        $carried = $layout->carriedBy(self::all(), $format);

        return isset(self::CONFIGURATIONS[$carried->count()]) ? $carried : throw LayoutNotCarried::by($format, $layout, self::all());
    }

    /** Null where there is none. */
    public static function configuration(int $channels): ?int
    {
        return self::CONFIGURATIONS[$channels] ?? null;
    }

    /**
     * How many channels each element has, 0 for low frequencies.
     *
     * @return list<int> none where one encoder does all
     */
    public static function elements(int $channels): array
    {
        return self::ELEMENTS[$channels] ?? [];
    }
}
