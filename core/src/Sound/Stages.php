<?php

declare(strict_types=1);

namespace Octavox\Core\Sound;

/** Steps on the way of the sound, one after the other. */
final class Stages
{
    /**
     * @param  iterable<Block>  $blocks
     * @param  list<Stage>  $stages
     * @return iterable<Block> what comes out of the last
     */
    public static function run(iterable $blocks, array $stages): iterable
    {
        foreach ($stages as $stage) {
            $blocks = self::through($blocks, $stage);
        }

        return $blocks;
    }

    /**
     * @param  iterable<Block>  $blocks
     * @return iterable<Block>
     */
    private static function through(iterable $blocks, Stage $stage): iterable
    {
        foreach ($blocks as $block) {
            yield from $stage->take($block);
        }
        yield from $stage->finish();
    }
}
