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

    /** Encoders whose names players know; the delay and padding that others write are not honoured anywhere, and may be other bytes. */
    private const KNOWN_MAKERS = ['LAME', 'Lavf', 'Lavc'];

    /** The library whose tag this is; delay and padding are honoured under its name. */
    private const USUAL_MAKER = 'LAME3.100';

    /**
     * @param  int  $frames  that follow, 0 where it does not say
     * @param  int  $bytes  of the sound and this frame, 0 where it does not say
     * @param  ?int  $delay  samples that the encoder put first, null where nobody is sure to know
     * @param  ?int  $padding  samples that the encoder put last
     * @param  string  $maker  name of the encoder; where players do not know it, that of the library whose tag this is is written
     */
    public function __construct(public int $frames, public int $bytes, public ?int $delay, public ?int $padding, public bool $variable,
        public string $maker = '') {}

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
        $bytes = 0;
        if (($flags & self::BYTES) !== 0) {
            $bytes = self::number(substr($frame, $at, 4));
            $at += 4;
        }
        $at += (($flags & self::PLACES) !== 0 ? 100 : 0) + (($flags & self::QUALITY) !== 0 ? 4 : 0);
        $maker = substr($frame, $at, 9);
        if (strlen($frame) < $at + 24 || ! self::isKnown($maker)) {
            return new self($frames, $bytes, null, null, $name === 'Xing');
        }
        $both = self::number("\0".substr($frame, $at + 21, 3));

        return new self($frames, $bytes, $both >> 12, $both & 0xFFF, $name === 'Xing', $maker);
    }

    /**
     * The header "VBRI" that other encoders write: 32 bytes after the frame's header; it tells the frames, of which none is trimmed.
     *
     * @param  string  $frame  one whole frame
     */
    public static function parseOther(string $frame): ?self
    {
        $at = 4 + self::OTHER_AT;

        return substr($frame, $at, 4) === 'VBRI' && strlen($frame) >= $at + 18
            ? new self(self::number(substr($frame, $at + 14, 4)), self::number(substr($frame, $at + 10, 4)), null, null, true) : null;
    }

    /**
     * A whole frame.
     *
     * @param  list<int>  $places  a hundred numbers from 0 to 255: which 256th of the bytes each hundredth of the time begins at
     */
    public function write(int $rate, int $channels, int $kbps, array $places, int $soundChecksum): string
    {
        [$frames, $bytes, $delay, $padding] = [$this->frames, $this->bytes, (int) $this->delay, (int) $this->padding];
        [$variable, $maker] = [$this->variable, $this->maker];
        $header = (string) FrameHeader::forBytes($rate, $channels, self::length($rate, $channels));
        $facts = FrameHeader::parse($header);
        $body = $header.str_repeat("\0", $facts === null ? 0 : $facts->sideInfoBytes)
            .($variable ? 'Xing' : 'Info')
            .pack('NNN', self::FRAMES | self::BYTES | self::PLACES | self::QUALITY, $frames, $bytes)
            .pack('C*', ...$places)
            .pack('N', 50)
            // Encoder, method (1 constant, 4 variable), low-pass unknown, no gain, flags, bit rate
            .str_pad(substr(self::isKnown($maker) ? $maker : self::USUAL_MAKER, 0, 9), 9).chr($variable ? 4 : 1).str_repeat("\0",
                10).chr(min(255, $kbps))
            .substr(pack('N', ($delay & 0xFFF) << 12 | $padding & 0xFFF), 1)
            // Miscellaneous, gain, preset and surround, length of the music, its checksum
            .str_repeat("\0", 4).pack('N', $bytes).pack('n', $soundChecksum);
        $body .= pack('n', self::checksum($body, 0));

        return str_pad($body, $facts === null ? 0 : $facts->bytes, "\0");
    }

    private static function isKnown(string $maker): bool
    {
        return in_array(substr($maker, 0, 4), self::KNOWN_MAKERS, true);
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
