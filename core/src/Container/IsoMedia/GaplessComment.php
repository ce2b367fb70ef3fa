<?php

declare(strict_types=1);

namespace Octavox\Core\Container\IsoMedia;

/**
 * Encoder delay, padding and length as a free-form comment atom named `iTunSMPB` keeps them:
 * hexadecimal numbers separated by spaces, the first unused, counted in samples.
 */
final readonly class GaplessComment
{
    private function __construct(public int $delay, public int $padding, public int $samples) {}

    public static function parse(string $text): ?self
    {
        $numbers = preg_split('/\s+/', trim($text)) ?: [];
        if (count($numbers) < 4 || preg_match('/^[0-9A-Fa-f ]+$/', implode(' ', array_slice($numbers, 0, 4))) !== 1
            || strlen($numbers[3]) > 16) {
            return null;
        }
        $samples = hexdec(ltrim($numbers[3], '0') ?: '0');
        $delay = hexdec($numbers[1]);
        $padding = hexdec($numbers[2]);

        return is_int($samples) && is_int($delay) && is_int($padding) && $samples > 0 && $delay < 1 << 20 && $padding < 1 << 20
            ? new self($delay, $padding, $samples) : null;
    }
}
