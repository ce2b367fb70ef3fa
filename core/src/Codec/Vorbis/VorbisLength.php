<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Vorbis;

use Octavox\Core\Codec\PacketLength;

/**
 * Length of Vorbis packets: a quarter of the block before and a quarter of its own (Vorbis I specification, 4.3.8);
 * the first gives nothing. Which block a packet has stands in the mode that its first bits name.
 */
final class VorbisLength implements PacketLength
{
    /** Bits of one mode: block flag, window type, transform type, mapping (4.2.4, step 5 of the modes). */
    private const MODE_BITS = 41;

    private int $before = 0;

    /** @param  list<int>  $modes  block length of each */
    private function __construct(private readonly array $modes) {}

    public static function fromHeaders(string $config): self
    {
        $headers = VorbisHeaders::parse($config);

        return new self($headers === null ? [] : self::modes($headers));
    }

    public function samples(string $packet): int
    {
        if ($packet === '' || $this->modes === [] || (ord($packet[0]) & 1) !== 0) {
            return 0;
        }
        $bits = 0;
        for ($left = count($this->modes) - 1; $left > 0; $left >>= 1) {
            $bits++;
        }
        $own = $this->modes[ord($packet[0]) >> 1 & (1 << $bits) - 1] ?? 0;
        $length = $this->before === 0 ? 0 : intdiv($this->before + $own, 4);
        $this->before = $own;

        return $length;
    }

    /**
     * The modes stand at the end of the set-up, before one framing bit; they are read from behind, so that the code books need not be.
     *
     * @return list<int>
     */
    private static function modes(VorbisHeaders $headers): array
    {
        $setup = $headers->setup;
        $last = strlen($setup) * 8 - 1;
        $bit = fn (int $at): int => $at < 0 ? 0 : ord($setup[$at >> 3]) >> ($at & 7) & 1;
        $value = function (int $at, int $count) use ($bit): int {
            $value = 0;
            for ($index = 0; $index < $count; $index++) {
                $value |= $bit($at + $index) << $index;
            }

            return $value;
        };
        while ($last > 0 && $bit($last) === 0) {
            $last--;
        }
        $found = [];
        $flags = [];
        for ($at = $last - self::MODE_BITS; $at > 64 && count($flags) < 64; $at -= self::MODE_BITS) {
            if ($value($at + 1, 32) !== 0 || $value($at + 33, 8) > 63) {
                break;
            }
            array_unshift($flags, $bit($at));
            if ($value($at - 6, 6) + 1 === count($flags)) {
                $found = $flags;
            }
        }
        $blocks = $headers->blocks();

        return array_map(fn (int $flag): int => $blocks[$flag], $found);
    }
}
