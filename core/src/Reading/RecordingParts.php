<?php

declare(strict_types=1);

namespace Octavox\Core\Reading;

use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;

/**
 * Which files are pieces of one recording: a recorder cuts where a file is full, and goes on in the next without a gap. They are called
 * alike and counted up, hold the same kind of samples, and each begins where the one before ends, by the time reference of Broadcast WAV
 * (EBU Tech 3285, 2.3) or, without one, by the time at which each was closed.
 */
final class RecordingParts
{
    /** Seconds by which clocks of file systems may be off: FAT counts in twos. */
    private const SECONDS_OFF = 2.0;

    /** All but the last are full: so much of the largest. */
    private const FULL = 0.98;

    /**
     * @param  array<string, ?Reading>  $readings  by path
     * @param  array<string, int>  $closed  when each file was written last, seconds of the epoch
     * @return list<non-empty-list<string>> paths that belong together, in their order; most by themselves
     */
    public static function group(array $readings, array $closed): array
    {
        uksort($readings, strnatcasecmp(...));
        $recordings = $current = [];
        foreach ($readings as $path => $reading) {
            $before = $current === [] ? null : $current[count($current) - 1];
            if ($before !== null && self::isNext($before, $path) && self::goesOn($readings[$before], $reading, $closed[$before] ?? 0,
                $closed[$path] ?? 0) && self::isFull($readings, $current, $reading)) {
                $current[] = $path;

                continue;
            }
            $recordings = $current === [] ? $recordings : [...$recordings, $current];
            $current = [$path];
        }

        return $current === [] ? [] : [...$recordings, $current];
    }

    /** Whether names differ by one in the number that they end in. */
    private static function isNext(string $before, string $path): bool
    {
        $parts = fn (string $name): array => preg_match('/^(.*?)(\d+)([^\d]*)$/s', $name, $found) === 1 ? $found : ['', $name, '', ''];
        [, $one, $number, $end] = $parts($before);
        [, $other, $next, $otherEnd] = $parts($path);

        return $number !== '' && $one === $other && strcasecmp($end, $otherEnd) === 0 && strlen($number) < 10
            && (int) $next === (int) $number + 1;
    }

    private static function goesOn(?Reading $before, ?Reading $reading, int $closedBefore, int $closed): bool
    {
        $one = self::sound($before);
        $other = self::sound($reading);
        if ($before === null || $reading === null || $one === null || $other === null || $one->rate !== $other->rate
            || $one->channels() !== $other->channels() || $one->pcm === null || $other->pcm === null || ! $one->pcm->equals($other->pcm)) {
            return false;
        }
        $samples = $before->sound()[0]->timeline->samples();
        [$begins, $next] = [$before->tags->timeReference, $reading->tags->timeReference];

        return $begins !== null && $next !== null && $begins + $next > 0 ? abs($next - $begins - $samples) <= $one->rate / 100
            : abs($closed - $reading->seconds - $closedBefore) <= self::SECONDS_OFF;
    }

    /**
     * @param  array<string, ?Reading>  $readings
     * @param  non-empty-list<string>  $paths  that belong together so far
     */
    private static function isFull(array $readings, array $paths, ?Reading $next): bool
    {
        $bytes = array_map(fn (string $path): int => $readings[$path]->bytes ?? 0, $paths);

        return min($bytes) >= self::FULL * max([...$bytes, $next->bytes ?? 0]);
    }

    private static function sound(?Reading $reading): ?AudioFormat
    {
        $sound = $reading?->picture() === null ? $reading?->sound() ?? [] : [];
        $isPlain = count($sound) === 1 && in_array($reading?->container, ['wav', 'w64', 'rf64'], true)
            && $sound[0]->sound?->codec === Codec::Pcm;

        return $isPlain ? $sound[0]->sound : null;
    }
}
