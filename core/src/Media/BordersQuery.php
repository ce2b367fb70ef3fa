<?php

declare(strict_types=1);

namespace Octavox\Core\Media;

/** Two marks of a sound track around which the borders of packets are wanted, in samples of the coded sound. */
final readonly class BordersQuery
{
    /**
     * @param  int  $from  first sample wanted
     * @param  int  $until  first sample no longer wanted
     */
    public function __construct(public int $track, public int $from, public int $until) {}

    public function key(): string
    {
        return $this->track.':'.$this->from.'-'.$this->until;
    }

    public static function ofKey(string $key): ?self
    {
        return preg_match('/^(\d{1,9}):(\d{1,18})-(\d{1,18})$/', $key, $parts) === 1
            ? new self((int) $parts[1], (int) $parts[2], (int) $parts[3]) : null;
    }
}
