<?php

declare(strict_types=1);

namespace Octavox\Core\Analysis;

use Octavox\Core\Sound\InvalidLevel;
use Octavox\Core\Sound\LevelTarget;

/** One gain for several sounds, so that their balance stays: the loudest of them reaches the target, none rises above the ceiling. */
final class GroupGain
{
    /**
     * @param  list<Measurements>  $sounds  as they are
     *
     * @throws InvalidLevel
     */
    public static function compute(LevelTarget $target, array $sounds): LevelTarget
    {
        $loudest = null;
        $truePeak = 0.0;
        foreach ($sounds as $sound) {
            $value = $sound->figure($target->kind);
            $loudest = $value === null ? $loudest : max($loudest ?? -INF, $value);
            $truePeak = max($truePeak, $sound->truePeak());
        }

        return LevelTarget::parse(sprintf('gain:%.2f', max(-60.0, min(60.0, $target->gain($loudest, $truePeak)->decibels))));
    }
}
