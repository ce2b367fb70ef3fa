<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Flac;

use Octavox\Core\Media\Packet;

/** The header of one FLAC frame: RFC 9639, 9.1. */
final readonly class FrameHeader
{
    /** RFC 9639, 9.1.1, table 14; 0 stands for a number at the end of the header */
    private const BLOCKS = [0, 192, 576, 1152, 2304, 4608, 0, 0, 256, 512, 1024, 2048, 4096, 8192, 16384, 32768];

    /** RFC 9639, 9.1 */
    public const MOST_BYTES = 16;

    private const NUMBER_AT = 4;

    /**
     * @param  int  $number  of the frame or of its first sample
     * @param  int  $bytes  before the header's sum
     * @param  int  $numberBytes  of them the coded number
     */
    private function __construct(public int $samples, public int $number, public bool $countsSamples, public int $channels,
        private int $bytes, private int $numberBytes) {}

    /** @param  string  $bytes 16 or more from where a frame may begin; null where it does not */
    public static function parse(string $bytes): ?self
    {
        if (strlen($bytes) < 6 || $bytes[0] !== "\xFF" || (ord($bytes[1]) & 0xFE) !== 0xF8) {
            return null;
        }
        $block = ord($bytes[2]) >> 4;
        $rate = ord($bytes[2]) & 15;
        $channels = ord($bytes[3]) >> 4;
        if ($block === 0 || $rate === 15 || $channels > 10 || (ord($bytes[3]) & 1) !== 0) {
            return null;
        }
        // RFC 9639, 9.1.5: the number is coded as UTF-8 codes characters, up to 36 bits
        $first = ord($bytes[4]);
        $more = match (true) {
            $first < 0x80 => 0,
            $first < 0xC0 => -1,
            $first < 0xE0 => 1,
            $first < 0xF0 => 2,
            $first < 0xF8 => 3,
            $first < 0xFC => 4,
            $first < 0xFE => 5,
            $first === 0xFE => 6,
            default => -1,
        };
        $length = 5 + $more + ($block === 6 ? 1 : ($block === 7 ? 2 : 0)) + ($rate === 12 ? 1 : ($rate > 12 ? 2 : 0));
        if ($more < 0 || strlen($bytes) < $length + 1) {
            return null;
        }
        $number = $more === 0 ? $first : $first & (0x3F >> $more);
        for ($index = 0; $index < $more; $index++) {
            $number = $number << 6 | ord($bytes[5 + $index]) & 0x3F;
        }
        if (FrameCrc::header(substr($bytes, 0, $length)) !== ord($bytes[$length])) {
            return null;
        }
        $samples = match ($block) {
            6 => ord($bytes[5 + $more]) + 1,
            7 => (ord($bytes[5 + $more]) << 8 | ord($bytes[6 + $more])) + 1,
            default => self::BLOCKS[$block],
        };

        return new self($samples, $number, (ord($bytes[1]) & 1) === 1, $channels < 8 ? $channels + 1 : 2, $length, 1 + $more);
    }

    /** A packet whose frame is counted so many numbers further on; as it is where it holds no frame. */
    public static function shifted(Packet $packet, int $by): Packet
    {
        $header = $by === 0 ? null : self::parse($packet->data);

        return $header === null ? $packet
            : new Packet($header->counted($packet->data, $header->number + $by), $packet->start, $packet->length);
    }

    /** A frame with this header, with another number in it and both its sums made anew. */
    public function counted(string $frame, int $number): string
    {
        $coded = self::coded($number);
        $header = substr($frame, 0, self::NUMBER_AT).$coded.substr($frame, self::NUMBER_AT + $this->numberBytes,
            $this->bytes - self::NUMBER_AT - $this->numberBytes);
        $header .= chr(FrameCrc::header($header));
        $before = substr($frame, 0, $this->bytes + 1);
        $body = substr($frame, $this->bytes + 1, -2);
        $change = FrameCrc::followed(FrameCrc::frame($header) ^ FrameCrc::frame($before), strlen($body));

        return $header.$body.(substr($frame, -2) ^ pack('n', $change));
    }

    /** As UTF-8 codes characters, up to 36 bits: RFC 9639, 9.1.5. */
    public static function coded(int $number): string
    {
        if ($number < 0x80) {
            return chr($number);
        }
        $bytes = '';
        // The first byte has one bit less for each that follows.
        for ($room = 0x3F; $number > $room; $room >>= 1, $number >>= 6) {
            $bytes = chr(0x80 | $number & 0x3F).$bytes;
        }

        return chr(~($room << 1 | 1) & 0xFF | $number).$bytes;
    }
}
