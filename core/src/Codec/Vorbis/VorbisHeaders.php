<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Vorbis;

use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;

/** The three set-up packets of Vorbis (Vorbis I specification, 4.2), kept as one run of bytes as Matroska has them: laced after Xiph. */
final readonly class VorbisHeaders
{
    private function __construct(public string $identification, public string $comment, public string $setup) {}

    public static function of(string $identification, string $comment, string $setup): ?self
    {
        $known = str_starts_with($identification, "\x01vorbis") && strlen($identification) >= 30 && str_starts_with($comment, "\x03vorbis")
            && str_starts_with($setup, "\x05vorbis");

        return $known ? new self($identification, $comment, $setup) : null;
    }

    /** @param  string  $config  two; the lengths of the first two packets in bytes of 255 and a rest; the packets */
    public static function parse(string $config): ?self
    {
        if (($config[0] ?? '') !== "\x02") {
            return null;
        }
        $at = 1;
        $lengths = [0, 0];
        foreach ([0, 1] as $index) {
            do {
                $byte = ord($config[$at++] ?? "\0");
                $lengths[$index] += $byte;
            } while ($byte === 255);
        }

        return self::of(substr($config, $at, $lengths[0]), substr($config, $at + $lengths[0], $lengths[1]),
            substr($config, $at + $lengths[0] + $lengths[1]));
    }

    public function config(): string
    {
        $lace = fn (int $length): string => str_repeat("\xFF", intdiv($length, 255)).chr($length % 255);

        return "\x02".$lace(strlen($this->identification)).$lace(strlen($this->comment)).$this->identification.$this->comment.$this->setup;
    }

    public function channels(): int
    {
        return ord($this->identification[11]);
    }

    public function rate(): int
    {
        $rate = unpack('V', substr($this->identification, 12, 4));

        return is_array($rate) && is_int($rate[1]) ? $rate[1] : 0;
    }

    /** @return array{int, int} samples of the short and the long block: 4.2.2 */
    public function blocks(): array
    {
        $byte = ord($this->identification[28]);

        return [1 << ($byte & 15), 1 << ($byte >> 4)];
    }

    /** @return ?AudioFormat null where the numbers cannot be */
    public function audio(): ?AudioFormat
    {
        $channels = $this->channels();
        $rate = $this->rate();

        return $channels < 1 || $channels > 64 || $rate < 1 || $rate > 10_000_000 ? null
            : new AudioFormat(Codec::Vorbis, $rate, VorbisLayout::layout($channels), null, $this->config());
    }
}
