<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Mp3;

use Octavox\Core\Media\Codec;

/** The four bytes that begin every frame of MPEG audio: ISO/IEC 11172-3 and 13818-3, 2.4.1.3 and 2.4.2.3. */
final readonly class FrameHeader
{
    /** kbit/s by version (1, or 2 and 2.5) and layer; index 0 is free format */
    private const RATES = [
        1 => [
            1 => [0, 32, 64, 96, 128, 160, 192, 224, 256, 288, 320, 352, 384, 416, 448],
            2 => [0, 32, 48, 56, 64, 80, 96, 112, 128, 160, 192, 224, 256, 320, 384],
            3 => [0, 32, 40, 48, 56, 64, 80, 96, 112, 128, 160, 192, 224, 256, 320],
        ],
        2 => [
            1 => [0, 32, 48, 56, 64, 80, 96, 112, 128, 144, 160, 176, 192, 224, 256],
            2 => [0, 8, 16, 24, 32, 40, 48, 56, 64, 80, 96, 112, 128, 144, 160],
            3 => [0, 8, 16, 24, 32, 40, 48, 56, 64, 80, 96, 112, 128, 144, 160],
        ],
    ];

    private function __construct(
        public int $layer,
        public int $rate,
        public int $kbps,
        public int $channels,
        public int $bytes,
        public int $samples,
        public int $sideInfoBytes,
        private int $identity,
    ) {}

    /** @param  string  $bytes at least four; null where they are no frame header, and where the frame is of free format */
    public static function parse(string $bytes): ?self
    {
        $header = self::anyFormat($bytes);

        return $header?->kbps === 0 ? null : $header;
    }

    /**
     * A header of free format, whose bit rate is in no table: 2.4.2.3, bitrate_index 0. All frames of such a stream are of one
     * length, which only the way to the next header tells.
     *
     * @param  int  $bytes  of a frame without padding; 0 where it is not known
     */
    public static function free(string $head, int $bytes): ?self
    {
        $header = self::anyFormat($head);
        if ($header === null || $header->kbps !== 0) {
            return null;
        }
        $padding = (ord($head[2]) >> 1 & 1) * ($header->layer === 1 ? 4 : 1);

        return new self($header->layer, $header->rate, (int) round($bytes * 8 * $header->rate / $header->samples / 1000), $header->channels,
            $bytes === 0 ? 0 : $bytes + $padding, $header->samples, $header->sideInfoBytes, $header->identity);
    }

    private static function anyFormat(string $bytes): ?self
    {
        if (strlen($bytes) < 4 || $bytes[0] !== "\xFF") {
            return null;
        }
        $b1 = ord($bytes[1]);
        $b2 = ord($bytes[2]);
        $b3 = ord($bytes[3]);
        $version = ($b1 >> 3) & 3;
        $layer = 4 - (($b1 >> 1) & 3);
        if (($b1 & 0xE0) !== 0xE0 || $version === 1 || $layer === 4 || ($b2 & 0xF0) === 0xF0 || ($b2 & 0x0C) === 0x0C) {
            return null;
        }
        $halves = $version === 3 ? 1 : 2;
        $rate = intdiv([44100, 48000, 32000][($b2 >> 2) & 3] ?? 44100, match ($version) {
            3 => 1,
            2 => 2,
            default => 4,
        });
        $kbps = self::RATES[$halves][$layer][$b2 >> 4];
        $padding = ($b2 >> 1) & 1;
        $channels = ($b3 >> 6) === 3 ? 1 : 2;
        $samples = match ($layer) {
            1 => 384,
            2 => 1152,
            default => $halves === 1 ? 1152 : 576,
        };
        $length = $layer === 1 ? (intdiv(12000 * $kbps, $rate) + $padding) * 4 : intdiv($samples * 125 * $kbps, $rate) + $padding;
        $side = $halves === 1 ? ($channels === 1 ? 17 : 32) : ($channels === 1 ? 9 : 17);

        return new self($layer, $rate, $kbps, $channels, $length, $samples, $side, ($b1 & 0xFE) << 8 | ($b2 & 0x0C));
    }

    /**
     * The bit rate of layer III nearest to the one that is asked for, at most 64 kbit/s below 16 kHz, where encoders go no higher.
     *
     * @param  int  $rate  Hz
     */
    public static function nearestRate(int $rate, int $kbps): int
    {
        $nearest = 0;
        foreach (self::RATES[$rate >= 32000 ? 1 : 2][3] as $candidate) {
            if ($candidate > 0 && ($rate >= 16000 || $candidate <= 64)
                && ($nearest === 0 || abs($candidate - $kbps) < abs($nearest - $kbps))) {
                $nearest = $candidate;
            }
        }

        return $nearest;
    }

    /** Whether the other can be a frame of the same stream: same version, layer and rate. */
    public function continues(self $other): bool
    {
        return $this->identity === $other->identity && ($this->channels === $other->channels);
    }

    public function codec(): Codec
    {
        return match ($this->layer) {
            1 => Codec::Mp1,
            2 => Codec::Mp2,
            default => Codec::Mp3,
        };
    }

    /**
     * A header of layer III without checksum and padding, in the smallest bit rate whose frame holds $bytes.
     *
     * @return ?string four bytes, null where the rate does not exist
     */
    public static function forBytes(int $rate, int $channels, int $bytes): ?string
    {
        foreach ([3 => 1, 2 => 2, 0 => 4] as $version => $divisor) {
            $rateIndex = array_search($rate * $divisor, [44100, 48000, 32000], true);
            for ($index = 1; $rateIndex !== false && $index < 15; $index++) {
                $header = "\xFF".chr(0xE3 | $version << 3).chr($index << 4 | $rateIndex << 2).chr($channels === 1 ? 0xC0 : 0x40);
                if ((self::parse($header)->bytes ?? 0) >= $bytes) {
                    return $header;
                }
            }
        }

        return null;
    }
}
