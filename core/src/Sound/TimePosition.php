<?php

declare(strict_types=1);

namespace Octavox\Core\Sound;

/**
 * Times as people type them: `1:02:03.5`, `62.5` or `62.5s`, `48000#` for samples, `250f` for picture frames, `end`.
 * With a minus in front they count from the end.
 */
final class TimePosition
{
    /**
     * @param  int  $length  samples of the whole sound
     * @param  float  $frames  pictures a second, 0 where there are none
     * @return int samples
     *
     * @throws InvalidTime
     */
    public static function parse(string $text, int $rate, int $length, float $frames = 0.0): int
    {
        $text = strtolower(trim($text));
        if ($text === 'end' || $text === '') {
            return $length;
        }
        $back = str_starts_with($text, '-') || str_starts_with($text, '−');
        $value = $back ? ltrim($text, '-−') : $text;
        $samples = match (true) {
            preg_match('/^(?:(?:(\d{1,4}):)?(\d{1,4}):)?(\d{1,9}(?:\.\d{1,9})?)s?$/', $value,
                $parts) === 1 => self::samples((int) $parts[1] * 3600 + (int) $parts[2] * 60, $parts[3], $rate),
            preg_match('/^(\d{1,15})#$/', $value, $parts) === 1 => (int) $parts[1],
            preg_match('/^(\d{1,9})f$/', $value, $parts) === 1 => $frames > 0 ? (int) round((int) $parts[1] * $rate / $frames)
                : throw InvalidTime::noPictures($text),
            default => throw InvalidTime::unreadable($text),
        };

        return $back ? max(0, $length - $samples) : $samples;
    }

    /** `h:mm:ss.mmm`, rounded down to the millisecond. */
    public static function write(int $samples, int $rate): string
    {
        $milliseconds = intdiv($samples * 1000, max(1, $rate));
        $clock = sprintf('%d:%02d.%03d', intdiv($milliseconds, 60_000) % 60, intdiv($milliseconds, 1000) % 60, $milliseconds % 1000);

        return $milliseconds >= 3_600_000 ? sprintf('%d:%02d:%02d.%03d', intdiv($milliseconds, 3_600_000),
            intdiv($milliseconds, 60_000) % 60, intdiv($milliseconds, 1000) % 60, $milliseconds % 1000) : $clock;
    }

    private static function samples(int $whole, string $seconds, int $rate): int
    {
        $parts = explode('.', $seconds.'.');

        return ($whole + (int) $parts[0]) * $rate + (int) round((float) ('0.'.$parts[1]) * $rate);
    }
}
