<?php

declare(strict_types=1);

namespace Octavox\Core\Sound;

/** Blocks that end where something else begins. */
final class BlockSplitter
{
    /**
     * @param  iterable<Block>  $blocks
     * @param  list<int>  $marks  samples at which a block must begin, rising
     * @return iterable<Block>
     */
    public static function at(iterable $blocks, array $marks): iterable
    {
        $done = 0;
        foreach ($blocks as $block) {
            $from = 0;
            while ($marks !== [] && $marks[0] < $done + $block->frames) {
                $count = array_shift($marks) - $done - $from;
                if ($count > 0) {
                    yield $block->part($from, $count);
                    $from += $count;
                }
            }
            yield $block->part($from, $block->frames - $from);
            $done += $block->frames;
        }
    }
}
