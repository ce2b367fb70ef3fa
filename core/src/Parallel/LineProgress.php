<?php

declare(strict_types=1);

namespace Octavox\Core\Parallel;

use Octavox\Core\Media\Phase;
use Octavox\Core\Media\Progress;

/** Says a few times a second, as lines of JSON, how far it is; gives up when the one who listens is gone. */
final class LineProgress implements Progress
{
    private const NANOSECONDS_BETWEEN = 150_000_000;

    private int $next = 0;

    private readonly int $parent;

    /** @param  resource  $output */
    public function __construct(private $output)
    {
        $this->parent = posix_getppid();
    }

    /**
     * @throws Abandoned
     */
    public function reached(Phase $phase, int $done, int $of): void
    {
        $now = hrtime(true);
        if ($now < $this->next) {
            return;
        }
        $this->next = $now + self::NANOSECONDS_BETWEEN;
        if (posix_getppid() !== $this->parent || @fwrite($this->output, ChildMessage::progressLine($phase, $done, $of)) === false) {
            throw Abandoned::now();
        }
    }
}
