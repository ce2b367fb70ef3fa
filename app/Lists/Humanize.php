<?php

declare(strict_types=1);

namespace App\Lists;

use Octavox\Core\Media\LanguageCode;

/** Numbers and languages as people read them. */
final class Humanize
{
    /** Decimal units, as drives and shops count. */
    public static function bytes(int|float $bytes): string
    {
        return match (true) {
            $bytes < 1000 => $bytes.' B',
            $bytes < 1e6 => number_format($bytes / 1e3, $bytes < 1e4 ? 1 : 0).' kB',
            $bytes < 1e9 => number_format($bytes / 1e6, $bytes < 1e8 ? 1 : 0).' MB',
            default => number_format($bytes / 1e9, 2).' GB',
        };
    }

    /** The English name of a language that is told by letters. */
    public static function language(string $letters): string
    {
        return LanguageCode::name($letters);
    }

    /** m:ss, with hours where there are any, with tenths below a minute. */
    public static function clock(?float $seconds): string
    {
        if ($seconds === null) {
            return '–';
        }
        if ($seconds < 59.95) {
            return sprintf('0:%04.1f', $seconds);
        }
        $whole = (int) round($seconds);

        return $whole < 3600 ? sprintf('%d:%02d', intdiv($whole, 60), $whole % 60)
            : sprintf('%d:%02d:%02d', intdiv($whole, 3600), intdiv($whole, 60) % 60, $whole % 60);
    }

    public static function rate(?int $hertz): string
    {
        return $hertz === null ? '' : rtrim(rtrim(number_format($hertz / 1000, 3), '0'), '.').' kHz';
    }

    /** How many times one size is the other. */
    public static function against(int $bytes, int $source): string
    {
        if ($source <= 0 || $bytes <= 0) {
            return '';
        }
        $times = $bytes / $source;

        return match (true) {
            $times >= 0.97 && $times <= 1.03 => 'same size',
            $times > 1 => number_format($times, $times < 10 ? 1 : 0).' × larger',
            default => number_format(1 / $times, $times > 0.1 ? 1 : 0).' × smaller',
        };
    }

    public static function left(?float $seconds): string
    {
        return $seconds === null ? '' : ($seconds < 1 ? 'a moment left' : self::clock(ceil($seconds)).' left');
    }

    public static function decibels(mixed $value, string $unit = ' dBFS'): string
    {
        return is_numeric($value) ? number_format((float) $value, 1).$unit : 'silence';
    }
}
