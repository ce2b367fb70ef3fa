<?php

declare(strict_types=1);

namespace Octavox\Core\Tests\Support;

use Octavox\Core\Media\Packet;

/**
 * Turns mono AAC-LC packets into HE-AAC and HE-AAC v2 by putting a fill element with spectral band replication behind the
 * channel element (ISO/IEC 14496-3, 4.4.2.7 and 4.4.2.8). No library here encodes these; the set-up does not announce them.
 */
final class ReplicatedAac
{
    /** Extension type, header with start and stop frequency; the zeros that follow are one envelope. */
    private const HEADER = '1101'.'1'.'1'.'0101'.'0101'.'000'.'00'.'0'.'0';

    /** Where the extended data begins after that envelope, with a parametric stereo header and no parameters. */
    private const STEREO_AT = 60;

    private const STEREO = '1'.'0011'.'10'.'1'.'0'.'0'.'0'.'0'.'00';

    private const BYTES = 60;

    /**
     * @param  list<Packet>  $packets
     * @return list<Packet>
     */
    public static function of(array $packets, bool $parametricStereo): array
    {
        $payload = $parametricStereo ? str_pad(self::HEADER, self::STEREO_AT, '0').self::STEREO : self::HEADER;

        return array_map(fn (Packet $packet): Packet => new Packet(self::extend($packet->data, $payload), $packet->start,
            $packet->length), $packets);
    }

    private static function extend(string $data, string $payload): string
    {
        $bits = '';
        foreach (str_split($data) as $byte) {
            $bits .= str_pad(decbin(ord($byte)), 8, '0', STR_PAD_LEFT);
        }
        $end = strrpos($bits, '1') - 2;
        $element = '1101111'.str_pad(decbin(self::BYTES - 14), 8, '0', STR_PAD_LEFT).str_pad($payload, 8 * self::BYTES, '0');
        $all = substr($bits, 0, self::fill($bits, $end)).$element.'111';
        $result = '';
        foreach (str_split($all, 8) as $byte) {
            $result .= chr((int) bindec(str_pad($byte, 8, '0')));
        }

        return $result;
    }

    /** Where the encoder's own fill element begins, which ends exactly at the end of the block; the end where there is none. */
    private static function fill(string $bits, int $end): int
    {
        for ($at = strlen($bits) - 8; $at > 20; $at--) {
            if (substr($bits, $at, 3) === '110') {
                $count = (int) bindec(substr($bits, $at + 3, 4));
                $body = $at + 7;
                if ($count === 15) {
                    $count = 14 + (int) bindec(substr($bits, $body, 8));
                    $body += 8;
                }
                if ($body + 8 * $count === $end) {
                    return $at;
                }
            }
        }

        return $end;
    }
}
