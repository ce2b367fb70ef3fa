<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Video;

/** H.265: ITU-T H.265, 7.3; its record: ISO/IEC 14496-15, 8.3.3. */
final class HevcUnits extends PictureUnits
{
    /** Kinds of units: ITU-T H.265, table 7-1. */
    private const FIRST_KEY = 16;

    private const LAST_KEY = 21;

    private const VIDEO = 32;

    private const SEQUENCE = 33;

    private const PICTURE = 34;

    private const DELIMITER = 35;

    public function configuration(string $bytes): string
    {
        $sets = [];
        foreach (NalUnits::split($bytes) as $unit) {
            $sets[self::kind($unit)] ??= $unit;
        }
        $parameters = isset($sets[self::SEQUENCE]) ? HevcParameters::parse($sets[self::SEQUENCE]) : null;
        if ($parameters === null || ! isset($sets[self::VIDEO], $sets[self::PICTURE])) {
            return '';
        }
        $arrays = '';
        foreach ([self::VIDEO, self::SEQUENCE, self::PICTURE] as $kind) {
            // Not complete: further sets may stand among the pictures.
            $arrays .= chr($kind).pack('n2', 1, strlen($sets[$kind])).$sets[$kind];
        }

        // Version; profile, tier and level; no least segmentation, no parallelism told; chroma; bits; no mean rate; one layer with lengths
        // of four bytes
        return "\x01".$parameters->profile."\xF0\0\xFC".chr(0xFC | $parameters->chroma).chr(0xF8 | $parameters->lumaBits - 8)
            .chr(0xF8 | $parameters->chromaBits - 8)."\0\0"
            .chr($parameters->layers << 3 | ($parameters->nested ? 4 : 0) | 3)."\x03".$arrays;
    }

    public function isKey(string $bytes): bool
    {
        foreach (NalUnits::split(substr($bytes, 0, 65_536)) as $unit) {
            $kind = self::kind($unit);
            if ($kind >= self::FIRST_KEY && $kind <= self::LAST_KEY) {
                return true;
            }
        }

        return false;
    }

    protected function told(string $unit): ?array
    {
        return self::kind($unit) === self::SEQUENCE ? HevcParameters::parse($unit)?->size() : null;
    }

    protected function isDelimiter(string $unit): bool
    {
        return self::kind($unit) === self::DELIMITER;
    }

    protected function isParameters(string $unit): bool
    {
        return in_array(self::kind($unit), [self::VIDEO, self::SEQUENCE, self::PICTURE], true);
    }

    /** @param  non-empty-string  $unit */
    private static function kind(string $unit): int
    {
        return ord($unit[0]) >> 1 & 0x3F;
    }
}
