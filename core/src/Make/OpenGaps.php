<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Media\Packet;

/** Copied packets in their times: one before a gap lasts until the next, so that the gap stays open. */
final class OpenGaps
{
    /** Seconds by which times may jitter. */
    private const TOLERANCE = 0.02;

    /**
     * @param  iterable<Packet>  $packets
     * @param  ?\Closure(Packet, int): void  $found  called with the packet before a gap and the samples that are missing; may refuse it
     * @return iterable<Packet>
     */
    public static function close(iterable $packets, int $rate, ?\Closure $found = null): iterable
    {
        $held = null;
        foreach ($packets as $packet) {
            if ($held !== null) {
                $gap = $packet->start - $held->start - $held->length;
                $open = $gap > max(intdiv($held->length, 2), self::TOLERANCE * $rate);
                if ($open && $found !== null) {
                    $found($held, $gap);
                }
                yield $open ? new Packet($held->data, $held->start, $held->length + $gap, $held->config) : $held;
            }
            $held = $packet;
        }
        if ($held !== null) {
            yield $held;
        }
    }
}
