<?php

declare(strict_types=1);

namespace Octavox\Core\Media;

/** For those who only want the result. */
final class NoProgress implements Progress
{
    public function reached(Phase $phase, int $done, int $of): void {}
}
