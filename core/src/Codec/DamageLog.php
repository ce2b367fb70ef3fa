<?php

declare(strict_types=1);

namespace Octavox\Core\Codec;

/** Where the sound of a source was damaged and silence stands for it. */
final class DamageLog
{
    private const MOST_PLACES = 1000;

    private const SHOWN = 5;

    /** @var array<int, int> length by first sample */
    private array $places = [];

    public function add(int $sample, int $length): void
    {
        if (count($this->places) < self::MOST_PLACES) {
            $this->places[$sample] = max($length, $this->places[$sample] ?? 0);
        }
    }

    /** @return list<array{int, int}> first sample and length of each place, those that follow each other together */
    public function places(): array
    {
        ksort($this->places);
        $places = [];
        $from = $until = -1;
        foreach ($this->places as $sample => $length) {
            if ($from >= 0 && $until >= $sample) {
                $until = max($until, $sample + $length);

                continue;
            }
            if ($from >= 0) {
                $places[] = [$from, $until - $from];
            }
            [$from, $until] = [$sample, $sample + $length];
        }
        if ($from >= 0) {
            $places[] = [$from, $until - $from];
        }

        return $places;
    }

    /**
     * In one sentence; none where nothing was damaged.
     *
     * @param  int  $rate  Hz
     * @return list<string>
     */
    public function notes(int $rate): array
    {
        $places = $this->places();
        if ($places === []) {
            return [];
        }
        $times = array_map(fn (array $place): string => PacketUndecodable::clock($place[0], $rate), array_slice($places, 0, self::SHOWN));
        $seconds = array_sum(array_column($places, 1)) / max(1, $rate);

        return [sprintf('The source itself is damaged at %s%s: %.2f s of silence stand there, everything else is as it was. Copy it '
            .'again from where it came from if that can be heard.', implode(', ', $times), count($places) > self::SHOWN
                ? sprintf(' and %d more places', count($places) - self::SHOWN) : '', $seconds)];
    }
}
