<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Video;

/** The units of H.264 and H.265 between start codes: ITU-T H.264, annex B. */
final class NalUnits
{
    /** @return list<non-empty-string> without start codes and the zeros before them */
    public static function split(string $bytes): array
    {
        $units = [];
        foreach (array_slice(explode("\0\0\1", "\0".$bytes), 1) as $unit) {
            $unit = rtrim($unit, "\0");
            if ($unit !== '') {
                $units[] = $unit;
            }
        }

        return $units;
    }

    /** Four bytes of length before each, as MP4 and Matroska have them: ISO/IEC 14496-15, 5.3.3. */
    public static function withLengths(string ...$units): string
    {
        return implode('', array_map(fn (string $unit): string => pack('N', strlen($unit)).$unit, $units));
    }
}
