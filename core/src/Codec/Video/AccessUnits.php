<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Video;

/** H.264: ITU-T H.264, 7.3; its record: ISO/IEC 14496-15, 5.3. */
final class AccessUnits extends PictureUnits
{
    /** Kinds of units: ITU-T H.264, table 7-1. */
    private const KEY = 5;

    private const INFORMATION = 6;

    private const RECOVERY_POINT = 6;

    private const SEQUENCE = 7;

    private const PICTURE = 8;

    private const DELIMITER = 9;

    public function configuration(string $bytes): string
    {
        $sequence = null;
        $picture = null;
        foreach (NalUnits::split($bytes) as $unit) {
            $kind = self::kind($unit);
            $sequence ??= $kind === self::SEQUENCE && strlen($unit) > 4 ? $unit : null;
            $picture ??= $kind === self::PICTURE ? $unit : null;
        }
        if ($sequence === null || $picture === null) {
            return '';
        }

        // Version, profile, compatibility, level; lengths of four bytes; one set of each
        return "\x01".substr($sequence, 1, 3)."\xFF\xE1".pack('n', strlen($sequence)).$sequence."\x01".pack('n', strlen($picture)).$picture;
    }

    protected function told(string $unit): ?array
    {
        return self::kind($unit) === self::SEQUENCE ? SequenceParameters::parse($unit)?->size() : null;
    }

    protected function isDelimiter(string $unit): bool
    {
        return self::kind($unit) === self::DELIMITER;
    }

    protected function isParameters(string $unit): bool
    {
        return in_array(self::kind($unit), [self::SEQUENCE, self::PICTURE], true);
    }

    /** @param  non-empty-string  $unit */
    private static function kind(string $unit): int
    {
        return ord($unit[0]) & 0x1F;
    }

    /** A picture that stands alone, or one that says that all is right from there on. */
    public function isKey(string $bytes): bool
    {
        foreach (NalUnits::split(substr($bytes, 0, 65_536)) as $unit) {
            $kind = self::kind($unit);
            if ($kind === self::KEY || $kind === self::INFORMATION && self::recovers($unit)) {
                return true;
            }
        }

        return false;
    }

    /** Whether a unit of supplemental information holds a recovery point: ITU-T H.264, 7.3.2.3 and D.1.8. */
    private static function recovers(string $unit): bool
    {
        $at = 1;
        // Closing bits follow the last message.
        while ($at + 2 < strlen($unit)) {
            $numbers = [0, 0];
            foreach ([0, 1] as $index) {
                do {
                    $byte = ord($unit[$at++] ?? "\0");
                    $numbers[$index] += $byte;
                } while ($byte === 255);
            }
            if ($numbers[0] === self::RECOVERY_POINT) {
                return true;
            }
            $at += $numbers[1];
        }

        return false;
    }
}
