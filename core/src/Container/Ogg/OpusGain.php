<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Ogg;

use Octavox\Core\Tag\Tags;

/**
 * The gains that Ogg Opus has fields of its own for: RFC 7845, 5.2.1. A file of Opus must not have those of ReplayGain; players would apply
 * both.
 */
final class OpusGain
{
    /** Fields by those of ReplayGain that they stand for. */
    private const FIELDS = ['REPLAYGAIN_TRACK_GAIN' => 'R128_TRACK_GAIN', 'REPLAYGAIN_ALBUM_GAIN' => 'R128_ALBUM_GAIN'];

    /** ReplayGain 2.0 brings sound to −18 LUFS, the fields of Opus to −23 LUFS (EBU R 128). */
    private const DECIBELS_LOWER = 5.0;

    /** RFC 7845, 5.2.1: 256ths of a decibel, in 16 bits with a sign. */
    private const STEPS = 256;

    public static function inPlaceOfReplayGain(Tags $tags): Tags
    {
        foreach ($tags->free() as $name => $values) {
            if (! str_starts_with((string) $name, 'REPLAYGAIN_')) {
                continue;
            }
            $tags = $tags->withFree((string) $name);
            $own = self::FIELDS[$name] ?? null;
            if ($own !== null && ! isset($tags->free()[$own]) && preg_match('/^\s*([+-]?\d{1,3}(?:\.\d+)?)\s*(dB)?\s*$/i',
                $values[0] ?? '', $gain) === 1) {
                $steps = (int) round(((float) $gain[1] - self::DECIBELS_LOWER) * self::STEPS);
                $tags = $tags->withFree($own, (string) max(-32_768, min(32_767, $steps)));
            }
        }

        return $tags;
    }
}
