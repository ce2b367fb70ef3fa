<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

use Octavox\Core\Container\OutputFormat;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\PacketBorders;

/** Which packets are copied of a track that is cut without encoding it anew. All counts are samples of the coded sound. */
final readonly class KeptCut
{
    /**
     * @param  int  $from  where the first packet begins
     * @param  int  $until  where the last one ends
     * @param  int  $skip  samples at the start that the result does not present
     * @param  int  $samples  that the result presents
     * @param  int  $early  by how many samples the result begins before the mark
     * @param  int  $late  by how many samples it ends after the mark
     */
    public function __construct(public int $from, public int $until, public int $skip, public int $samples,
        public int $early, public int $late) {}

    /**
     * The cut nearest to two marks: exact where the result's container can say what not to present, else on the borders around them.
     *
     * @param  int  $from  first sample wanted, counted in the coded sound
     * @param  int  $until  first sample no longer wanted
     * @return ?self null where the packets cannot be cut there
     */
    public static function around(PacketBorders $borders, AudioFormat $audio, OutputFormat $format, int $from, int $until): ?self
    {
        $starts = $borders->starts;
        $end = $borders->end;
        if ($starts === [] || $end === null) {
            return null;
        }
        $last = $starts[count($starts) - 1];
        if ($audio->codec === Codec::Vorbis) {
            // The first packet only lets the second begin; the end is said to the sample.
            return count($starts) < 2 || ! $format->carries($audio) ? null
                : new self($starts[count($starts) - 2], $end, 0, $until - $last, $from - $last, 0);
        }
        // The decoder begins before the mark where the container can leave that out; the sooner, the safer.
        foreach ($starts as $start) {
            if ($start < $from && $format->presentedKept($audio, $end - $start, $from - $start, $until - $from) === $until - $from) {
                return new self($start, $end, $from - $start, $until - $from, 0, 0);
            }
        }

        return new self($last, $end, 0, $end - $last, $from - $last, $end - $until);
    }

    public function isExact(): bool
    {
        return $this->early === 0 && $this->late === 0;
    }
}
