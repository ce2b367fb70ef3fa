<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Opus;

use Octavox\Core\Codec\Vorbis\VorbisLayout;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Sound\Layout;

/** The set-up bytes of Opus: RFC 7845, 5.1. */
final readonly class OpusHead
{
    /** RFC 6716, 3.2: samples at 48 kHz that one packet holds at most, 120 ms. */
    public const LONGEST_PACKET = 5760;

    /** Opus is decoded at this rate, whatever it was made of. */
    public const RATE = 48000;

    /**
     * @param  int  $skip  samples at 48 kHz to be left out at the start
     * @param  int  $gain  256ths of a decibel
     * @param  string  $mapping  one byte a channel
     */
    private function __construct(public int $channels, public int $skip, public int $inputRate, public int $gain, public int $family,
        public int $streams, public int $coupled, public string $mapping) {}

    public static function of(int $channels, int $skip, int $inputRate, int $family, int $streams, int $coupled, string $mapping): self
    {
        return new self($channels, $skip, $inputRate, 0, $family, $streams, $coupled, $mapping);
    }

    /** @return ?self null where these are no such bytes */
    public static function parse(string $bytes): ?self
    {
        if (strlen($bytes) < 19 || ! str_starts_with($bytes, 'OpusHead') || ord($bytes[8]) >> 4 !== 0) {
            return null;
        }
        /** @var array{c: int, s: int, r: int, g: int, f: int} $numbers */
        $numbers = unpack('x9/Cc/vs/Vr/vg/Cf', $bytes);

        return self::checked($numbers['c'], $numbers['s'], $numbers['r'], $numbers['g'], $numbers['f'], substr($bytes, 19));
    }

    /** The same in MP4, most significant byte first: Encapsulation of Opus in ISO Base Media File Format, 4.3.2. */
    public static function parseBox(string $bytes): ?self
    {
        if (strlen($bytes) < 11) {
            return null;
        }
        /** @var array{c: int, s: int, r: int, g: int, f: int} $numbers */
        $numbers = unpack('x/Cc/ns/Nr/ng/Cf', $bytes);

        return self::checked($numbers['c'], $numbers['s'], $numbers['r'], $numbers['g'], $numbers['f'], substr($bytes, 11));
    }

    public function bytes(): string
    {
        return 'OpusHead'.pack('CCvVvC', 1, $this->channels, $this->skip, $this->inputRate, $this->gain & 0xFFFF,
            $this->family).$this->table();
    }

    /** The body of the `dOps` box. */
    public function boxBytes(): string
    {
        return pack('CCnNnC', 0, $this->channels, $this->skip, $this->inputRate, $this->gain & 0xFFFF, $this->family).$this->table();
    }

    public function withSkip(int $skip): self
    {
        return new self($this->channels, $skip, $this->inputRate, $this->gain, $this->family, $this->streams,
            $this->coupled, $this->mapping);
    }

    public function audio(): AudioFormat
    {
        return new AudioFormat(Codec::Opus, self::RATE, $this->family === 1 ? VorbisLayout::layout($this->channels)
            : Layout::undeclared($this->channels), null, $this->bytes());
    }

    /** Samples at 48 kHz that a packet decodes to, from its first byte or two: RFC 6716, 3.1 and 3.2. */
    public static function samples(string $packet): int
    {
        if ($packet === '') {
            return 0;
        }
        $first = ord($packet[0]);
        $kind = $first >> 3;
        $frame = match (true) {
            $kind < 12 => [480, 960, 1920, 2880][$kind & 3],
            $kind < 16 => [480, 960][$kind & 1],
            default => [120, 240, 480, 960][$kind & 3],
        };
        $count = match ($first & 3) {
            0 => 1,
            1, 2 => 2,
            default => ord($packet[1] ?? "\0") & 0x3F,
        };

        return min(self::LONGEST_PACKET, $frame * $count);
    }

    private function table(): string
    {
        return $this->family === 0 ? '' : chr($this->streams).chr($this->coupled).$this->mapping;
    }

    private static function checked(int $channels, int $skip, int $rate, int $gain, int $family, string $table): ?self
    {
        if ($channels < 1 || $channels > Layout::MOST_CHANNELS || $family === 0 && $channels > 2) {
            return null;
        }
        $gain = $gain >= 0x8000 ? $gain - 0x10000 : $gain;
        if ($family === 0) {
            return new self($channels, $skip, $rate, $gain, 0, 1, $channels - 1, $channels === 1 ? "\0" : "\0\1");
        }
        $known = strlen($table) >= 2 + $channels && ord($table[0]) >= 1 && ord($table[1]) <= ord($table[0]);

        return $known ? new self($channels, $skip, $rate, $gain, $family, ord($table[0]), ord($table[1]),
            substr($table, 2, $channels)) : null;
    }
}
