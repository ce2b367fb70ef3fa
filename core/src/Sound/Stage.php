<?php

declare(strict_types=1);

namespace Octavox\Core\Sound;

/** One step on the way of the sound; takes blocks, gives blocks, keeps a bounded amount. */
interface Stage
{
    /** @return iterable<Block> each good until the next is taken */
    public function take(Block $block): iterable;

    /** @return iterable<Block> what was still held; nothing may be taken after */
    public function finish(): iterable;
}
