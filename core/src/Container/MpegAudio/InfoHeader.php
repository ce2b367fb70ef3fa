<?php

declare(strict_types=1);

namespace Octavox\Core\Container\MpegAudio;

use Octavox\Core\Codec\Mp3\FrameHeader;

/**
 * The first frame of an MP3 file that holds no sound but tells length, places to seek to, encoder delay and padding:
 * "Xing" for variable and "Info" for constant rate, with the extension that LAME introduced (Mp3 Info Tag rev 1).
 */
final readonly class InfoHeader
{
    private const FRAMES = 1;

    private const BYTES = 2;

    private const PLACES = 4;

    private const QUALITY = 8;

    private const OTHER_AT = 32;

    private function __construct(public int $frames, public ?int $delay, public ?int $padding, public bool $variable)
    {
    }

    /** @param  string  $frame one whole frame; null where it is ordinary sound */
    public static function parse(string $frame): ?self
    {
        $header = FrameHeader::parse($frame);
        if ($header === null) {
            return null;
        }
        $at = 4 + $header->sideInfoBytes;
        $name = substr($frame, $at, 4);
        if ($name !== 'Xing' && $name !== 'Info' || strlen($frame) < $at + 8) {
            return null;
        }
        $flags = self::number(substr($frame, $at + 4, 4));
        $at += 8;
        $frames = 0;
        if (($flags & self::FRAMES) !== 0) {
            $frames = self::number(substr($frame, $at, 4));
            $at += 4;
        }
        $at += (($flags & self::BYTES) !== 0 ? 4 : 0) + (($flags & self::PLACES) !== 0 ? 100 : 0) + (($flags & self::QUALITY) !== 0 ? 4 : 0);
        if (strlen($frame) < $at + 24 || trim(substr($frame, $at, 4), "\0") === '') {
            return new self($frames, null, null, $name === 'Xing');
        }
        $both = self::number("\0".substr($frame, $at + 21, 3));

        return new self($frames, $both >> 12, $both & 0xFFF, $name === 'Xing');
    }

    /**
     * The header "VBRI" that other encoders write: 32 bytes after the frame's header; it tells the frames, of which none is trimmed.
     *
     * @param  string  $frame  one whole frame
     */
    public static function parseOther(string $frame): ?self
    {
        $at = 4 + self::OTHER_AT;

        return substr($frame, $at, 4) === 'VBRI' && strlen($frame) >= $at + 18 ? new self(self::number(substr($frame, $at + 14, 4)), null, null, true) : null;
    }

    /**
     * A whole frame.
     *
     * @param  int  $bytes  of the sound and this frame
     * @param  list<int>  $places  a hundred numbers from 0 to 255: which 256th of the bytes each hundredth of the time begins at
     */
    public static function write(int $rate, int $channels, int $frames, int $bytes, int $delay, int $padding, bool $variable, int $kbps, string $maker, array $places, int $soundChecksum): string
    {
        $header = (string) FrameHeader::forBytes($rate, $channels, self::length($rate, $channels));
        $facts = FrameHeader::parse($header);
        $body = $header.str_repeat("\0", $facts === null ? 0 : $facts->sideInfoBytes)
            .($variable ? 'Xing' : 'Info')
            .pack('NNN', self::FRAMES | self::BYTES | self::PLACES | self::QUALITY, $frames, $bytes)
            .pack('C*', ...$places)
            .pack('N', 50)
            // Encoder, method (1 constant, 4 variable), low-pass unknown, no gain, flags, bit rate
            .str_pad(substr($maker, 0, 9), 9).chr($variable ? 4 : 1).str_repeat("\0", 10).chr(min(255, $kbps))
            .substr(pack('N', ($delay & 0xFFF) << 12 | $padding & 0xFFF), 1)
            // Miscellaneous, gain, preset and surround, length of the music, its checksum
            .str_repeat("\0", 4).pack('N', $bytes).pack('n', $soundChecksum);
        $body .= pack('n', self::checksum($body, 0));

        return str_pad($body, $facts === null ? 0 : $facts->bytes, "\0");
    }

    /** Bytes that the frame takes. */
    public static function frameBytes(int $rate, int $channels): int
    {
        return FrameHeader::parse((string) FrameHeader::forBytes($rate, $channels, self::length($rate, $channels)))->bytes ?? 0;
    }

    /** CRC-16 with the polynomial 0x8005, reflected, as the tag uses it. */
    public static function checksum(string $bytes, int $sum): int
    {
        static $table = [];
        if ($table === []) {
            for ($value = 0; $value < 256; $value++) {
                $entry = $value;
                for ($bit = 0; $bit < 8; $bit++) {
                    $entry = ($entry & 1) !== 0 ? $entry >> 1 ^ 0xA001 : $entry >> 1;
                }
                $table[$value] = $entry;
            }
        }
        for ($at = 0, $end = strlen($bytes); $at < $end; $at++) {
            $sum = $table[($sum ^ ord($bytes[$at])) & 0xFF] ^ $sum >> 8;
        }

        return $sum;
    }

    /** Header, side information, tag of 120 bytes and extension of 36. */
    private static function length(int $rate, int $channels): int
    {
        return 4 + ($rate >= 32000 ? ($channels === 1 ? 17 : 32) : ($channels === 1 ? 9 : 17)) + 120 + 36;
    }

    private static function number(string $bytes): int
    {
        $number = strlen($bytes) === 4 ? unpack('N', $bytes) : false;

        return is_array($number) && is_int($number[1]) ? $number[1] : 0;
    }
}
