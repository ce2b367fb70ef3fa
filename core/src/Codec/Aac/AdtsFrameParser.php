<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Aac;

use Octavox\Core\Bytes\BitReader;
use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Codec\FrameInfo;
use Octavox\Core\Codec\FrameParser;
use Octavox\Core\Media\AudioFormat;

/** AAC with a header before every access unit: ISO/IEC 14496-3, 1.A.2.2. */
final class AdtsFrameParser implements FrameParser
{
    private const HEADER = 7;

    private const WITH_CHECKSUM = 9;

    /** Headers that are remembered, because they repeat: most files have no more. */
    private const MOST_KNOWN = 8192;

    /** @var array<string, FrameInfo> by their headers */
    private array $known = [];

    public function headBytes(): int
    {
        return self::HEADER;
    }

    public function firstByte(): string
    {
        return "\xFF";
    }

    public function at(string $head): ?FrameInfo
    {
        if (isset($this->known[$head])) {
            return $this->known[$head];
        }
        // Sync word of twelve bits, layer 0, a rate that exists, one access unit or more
        if (strlen($head) < self::HEADER || $head[0] !== "\xFF" || (ord($head[1]) & 0xF6) !== 0xF0 || (ord($head[2]) >> 2 & 15) > 12) {
            return null;
        }
        $bytes = (ord($head[3]) & 3) << 11 | ord($head[4]) << 3 | ord($head[5]) >> 5;
        $header = (ord($head[1]) & 1) === 1 ? self::HEADER : self::WITH_CHECKSUM;

        if (count($this->known) === self::MOST_KNOWN) {
            $this->known = [];
        }

        return $bytes <= $header ? null : $this->known[$head] = new FrameInfo($bytes, 1024 * ((ord($head[6]) & 3) + 1),
            (ord($head[1]) & 0x08).' '.(ord($head[2]) & 0xFD).' '.(ord($head[3]) & 0xC0));
    }

    /** @throws BytesMissing */
    public function audio(string $frame): AudioFormat
    {
        $bits = new BitReader(substr($frame, 2, 2));
        $profile = $bits->bits(2);
        $rate = $bits->bits(4);
        $bits->bits(1);

        return AudioSpecificConfig::plain($profile + 1, $rate, $bits->bits(3))->audio();
    }

    public function payload(string $frame): string
    {
        return substr($frame, (ord($frame[1]) & 1) === 1 ? self::HEADER : self::WITH_CHECKSUM);
    }

    /**
     * The header for one access unit; null where the set-up has no place in one.
     *
     * @throws BytesMissing
     */
    public static function header(string $config, int $bytes): ?string
    {
        $parsed = AudioSpecificConfig::parse($config);
        $index = $parsed->rateIndex();
        $length = $bytes + self::HEADER;
        if ($index === null || $parsed->objectType < 1 || $parsed->objectType > 4 || $parsed->channelConfiguration < 1
            || $parsed->channelConfiguration > 7 || $parsed->coreFrameLength !== 1024 || $length > 0x1FFF) {
            return null;
        }

        return "\xFF\xF1".chr($parsed->objectType - 1 << 6 | $index << 2 | $parsed->channelConfiguration >> 2)
            .chr(($parsed->channelConfiguration & 3) << 6 | $length >> 11).chr($length >> 3 & 0xFF).chr(($length & 7) << 5 | 0x1F)."\xFC";
    }
}
