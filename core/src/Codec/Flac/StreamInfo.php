<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Flac;

use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Sound\Channel;
use Octavox\Core\Sound\Layout;

/** The set-up bytes of FLAC: RFC 9639, 8.2. */
final readonly class StreamInfo
{
    public const BYTES = 34;

    /** RFC 9639, 8.2: up to 36 bits of samples; 0 where unknown */
    private function __construct(public string $bytes, public int $smallestBlock, public int $largestBlock, public int $rate,
        public int $channels, public int $bits, public int $samples) {}

    /** @return ?self null where these are no such bytes */
    public static function parse(string $bytes): ?self
    {
        if (strlen($bytes) < self::BYTES) {
            return null;
        }
        $bytes = substr($bytes, 0, self::BYTES);
        /** @var array{1: int, 2: int} $blocks */
        $blocks = unpack('n2', $bytes);
        /** @var array{1: int} $packed */
        $packed = unpack('J', substr($bytes, 10, 8));
        $rate = $packed[1] >> 44 & 0xFFFFF;
        if ($rate === 0 || $blocks[2] < 16) {
            return null;
        }

        return new self($bytes, $blocks[1], $blocks[2], $rate, ($packed[1] >> 41 & 7) + 1, ($packed[1] >> 36 & 31) + 1,
            $packed[1] & 0xFFFFFFFFF);
    }

    /** Without a channel mask among the comments: RFC 9639, 9.1.3, table 10. */
    public function audio(?Layout $layout = null): AudioFormat
    {
        return new AudioFormat(Codec::Flac, $this->rate, $layout ?? self::layout($this->channels), null, $this->bytes, 0, '', $this->bits);
    }

    public static function layout(int $channels): Layout
    {
        [$l, $r, $c, $f] = [Channel::Left, Channel::Right, Channel::Centre, Channel::LowFrequency];

        return match ($channels) {
            1 => Layout::mono(),
            2 => Layout::stereo(),
            3 => Layout::of($l, $r, $c),
            4 => Layout::of($l, $r, Channel::BackLeft, Channel::BackRight),
            5 => Layout::of($l, $r, $c, Channel::SideLeft, Channel::SideRight),
            6 => Layout::fiveOne(),
            7 => Layout::of($l, $r, $c, $f, Channel::BackCentre, Channel::SideLeft, Channel::SideRight),
            8 => Layout::sevenOne(),
            default => Layout::undeclared($channels),
        };
    }

    /**
     * For frames out of the midst: of so many samples, the rest unknown (RFC 9639, 8.2: sizes of frames and the MD5 sum may be 0).
     *
     * @return string 34 bytes
     */
    public function ofCut(int $samples): string
    {
        return $this->with(0, 0, $samples, str_repeat("\0", 16));
    }

    /**
     * For frames of these sizes.
     *
     * @return string 34 bytes
     */
    public function ofFrames(int $smallest, int $largest): string
    {
        return $this->with($smallest, $largest, $this->samples, substr($this->bytes, 18));
    }

    /**
     * For the frames of both, one after another.
     *
     * @param  string  $sum  MD5 of all samples, 16 bytes
     * @return string 34 bytes
     */
    public function joined(self $later, int $samples, string $sum): string
    {
        return $this->with(min($this->frameBytes(4), $later->frameBytes(4)),
            max($this->frameBytes(7), $later->frameBytes(7)), $samples, $sum);
    }

    /** The size of the smallest (at 4) or the largest frame (at 7). */
    private function frameBytes(int $at): int
    {
        return ord($this->bytes[$at]) << 16 | ord($this->bytes[$at + 1]) << 8 | ord($this->bytes[$at + 2]);
    }

    private function with(int $smallest, int $largest, int $samples, string $sum): string
    {
        /** @var array{1: int} $packed */
        $packed = unpack('J', substr($this->bytes, 10, 8));

        return substr($this->bytes, 0, 4).substr(pack('N', $smallest), 1).substr(pack('N', $largest), 1).pack('J',
            $packed[1] >> 36 << 36 | $samples).$sum;
    }
}
