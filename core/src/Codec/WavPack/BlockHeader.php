<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\WavPack;

use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Sound\Layout;

/** The 32 bytes that begin every WavPack block: WavPack 4 & 5 Binary File / Block Format, 2.0. */
final readonly class BlockHeader
{
    public const BYTES = 32;

    /** Flags of the same document. */
    private const MONO = 0x4;

    private const FLOAT = 0x80;

    private const FIRST = 0x800;

    private const LAST = 0x1000;

    private const DSD = 0x80000000;

    /** Hz by the four bits from bit 23 on. */
    private const RATES = [6000, 8000, 9600, 11025, 12000, 16000, 22050, 24000, 32000, 44100, 48000, 64000, 88200, 96000, 192000];

    /** Kinds of metadata: channels and their mask; a rate that is in no table. */
    private const CHANNEL_INFO = 0x0D;

    private const SAMPLE_RATE = 0x27;

    /**
     * @param  int  $bytes  of the whole block
     * @param  ?int  $total  samples a channel of the whole file, null where unknown
     */
    private function __construct(public int $bytes, public ?int $total, public int $start, public int $samples, private int $flags) {}

    public static function parse(string $bytes): ?self
    {
        if (strlen($bytes) < self::BYTES || ! str_starts_with($bytes, 'wvpk')) {
            return null;
        }
        /** @var array{s: int, v: int, iu: int, tu: int, t: int, i: int, n: int, f: int} $numbers */
        $numbers = unpack('x4/Vs/vv/Ciu/Ctu/Vt/Vi/Vn/Vf', $bytes);
        if ($numbers['s'] < self::BYTES - 8 || $numbers['s'] > 1 << 24 || $numbers['v'] < 0x402 || $numbers['v'] > 0x410
            || $numbers['n'] > 1 << 22) {
            return null;
        }

        return new self($numbers['s'] + 8, $numbers['t'] === 0xFFFFFFFF ? null : $numbers['t'] | $numbers['tu'] << 32,
            $numbers['i'] | $numbers['iu'] << 32, $numbers['n'], $numbers['f']);
    }

    /** Whether it is the first, or the last, of the blocks that hold the channels of one stretch. */
    public function isFirst(): bool
    {
        return ($this->flags & self::FIRST) !== 0;
    }

    public function isLast(): bool
    {
        return ($this->flags & self::LAST) !== 0;
    }

    public function isFloat(): bool
    {
        return ($this->flags & self::FLOAT) !== 0;
    }

    public function sampleBytes(): int
    {
        return ($this->flags & 3) + 1;
    }

    /** @param  string  $block  the whole first block */
    public function audio(string $block): AudioFormat
    {
        $channels = ($this->flags & self::MONO) !== 0 ? 1 : 2;
        $mask = 0;
        $rate = self::RATES[$this->flags >> 23 & 15] ?? 48000;
        for ($at = self::BYTES; $at + 2 <= strlen($block); $at += $size) {
            $id = ord($block[$at]);
            $long = ($id & 0x80) !== 0;
            $size = 2 * (ord($block[$at + 1]) | ($long ? ord($block[$at + 2] ?? "\0") << 8 | ord($block[$at + 3] ?? "\0") << 16 : 0));
            $at += $long ? 4 : 2;
            $data = substr($block, $at, $size - (($id & 0x40) !== 0 ? 1 : 0));
            $number = fn (string $bytes): int => array_sum(array_map(fn (string $byte, int $place): int => ord($byte) << 8 * $place,
                str_split($bytes), array_keys(str_split($bytes))));
            if (($id & 0x3F) === self::CHANNEL_INFO && $data !== '') {
                // Channels without places have no mask at all.
                $channels = max(1, min(Layout::MOST_CHANNELS, ord($data[0])));
                $mask = $number(substr($data, 1, 4));
            } elseif (($id & 0x3F) === self::SAMPLE_RATE && strlen($data) >= 3) {
                $rate = max(1, $number(substr($data, 0, 3)));
            }
        }
        $variant = ($this->flags & self::DSD) !== 0 ? 'WavPack, one-bit samples' : ($this->isFloat() ? '32-bit float WavPack' : '');

        return new AudioFormat(Codec::WavPack, $rate, Layout::fromMask($mask, $channels), null, '', 0, $variant, 8 * $this->sampleBytes());
    }
}
