<?php

declare(strict_types=1);

namespace Octavox\Core\Testing;

use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\OutputFormat;
use Octavox\Core\Container\Video\VideoOutputFormat;
use Octavox\Core\Name\NamePattern;
use Octavox\Core\Order\IfExists;
use Octavox\Core\Order\Length;
use Octavox\Core\Order\OutputSpec;
use Octavox\Core\Order\SoundSpec;
use Octavox\Core\Sound\Layout;

/** Specs as tests need them, written briefly. */
final class Spec
{
    /** @param  list<int>  $joined  numbers of further tracks whose channels follow */
    public static function sound(
        ?OutputFormat $format,
        RateControl $rateControl,
        string $folder,
        ?int $rate = null,
        ?int $bits = null,
        ?Layout $layout = null,
        ?int $track = null,
        NamePattern $name = new NamePattern,
        IfExists $existing = IfExists::Number,
        ?Length $length = null,
        SoundSpec $shaping = new SoundSpec,
        array $joined = [],
    ): OutputSpec {
        $sound = (new SoundSpec(
            $track === null ? null : implode('+', [$track, ...$joined]), null, $rateControl->isNone() ? null : $rateControl, $rate, $bits,
            $layout === null ? null : self::word($layout),
        ))->over($shaping);

        return new OutputSpec($format?->name(), null, [$sound], $length, null, (string) $name, $folder, $existing);
    }

    /**
     * @param  ?list<int>  $tracks
     */
    public static function video(
        ?VideoOutputFormat $video,
        ?OutputFormat $codec,
        RateControl $rateControl,
        string $folder,
        ?int $rate = null,
        ?int $bits = null,
        ?Layout $layout = null,
        ?array $tracks = null,
        SoundSpec $shaping = new SoundSpec,
    ): OutputSpec {
        $sound = (new SoundSpec(
            $tracks === null ? null : implode(',', $tracks), $codec?->name(), $rateControl->isNone() ? null : $rateControl, $rate, $bits,
            $layout === null ? null : self::word($layout),
        ))->over($shaping);

        return new OutputSpec($video?->name(), null, [$sound], place: $folder);
    }

    /** @param  list<string>  $labels */
    public static function shaping(
        string $layout = '',
        array $labels = [],
        string $pieces = '',
        bool $apart = false,
        string $fadeIn = '',
        string $fadeOut = '',
        string $level = '',
        bool $exact = false,
    ): SoundSpec {
        return new SoundSpec(layout: $layout, labels: $labels, pieces: $pieces, separate: $apart, exact: $exact, fadeIn: $fadeIn,
            fadeOut: $fadeOut, level: $level);
    }

    private static function word(Layout $layout): string
    {
        return match ($layout->name()) {
            'mono' => 'mono',
            'stereo' => 'stereo',
            default => $layout->name(),
        };
    }
}
