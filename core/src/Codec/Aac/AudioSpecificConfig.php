<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Aac;

use Octavox\Core\Bytes\BitReader;
use Octavox\Core\Bytes\BitWriter;
use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Sound\Layout;

/** The set-up bytes of AAC: ISO/IEC 14496-3, 1.6.2.1 (AudioSpecificConfig) and 4.4.1 (GASpecificConfig). */
final readonly class AudioSpecificConfig
{
    /** ISO/IEC 14496-3, table 1.18 */
    private const RATES = [96000, 88200, 64000, 48000, 44100, 32000, 24000, 22050, 16000, 12000, 11025, 8000, 7350];

    private const OBJECT_MAIN = 1;

    public const OBJECT_LC = 2;

    private const OBJECT_LTP = 4;

    private const OBJECT_SBR = 5;

    private const OBJECT_PS = 29;

    private function __construct(
        private string $bytes,
        public int $objectType,
        public int $coreRate,
        public int $outputRate,
        public int $channelConfiguration,
        public int $coreFrameLength,
        public bool $parametricStereo,
    ) {}

    /** @throws BytesMissing where the set-up ends too early */
    public static function parse(string $bytes): self
    {
        $bits = new BitReader($bytes);
        $type = self::objectType($bits);
        $rate = self::rate($bits);
        $channels = $bits->bits(4);
        $outputRate = $rate;
        $extended = $type === self::OBJECT_SBR || $type === self::OBJECT_PS;
        $stereo = $type === self::OBJECT_PS;
        if ($extended) {
            $outputRate = self::rate($bits);
            $type = self::objectType($bits);
        }
        $short = $bits->remaining() > 0 && $bits->bits(1) === 1;
        if (! $extended && $bits->remaining() > 18) {
            [$outputRate, $stereo] = self::appended($bits, $rate);
        }

        return new self($bytes, $type, $rate, $outputRate, $channels, $short ? 960 : 1024, $stereo);
    }

    /** @throws BytesMissing */
    public static function lowComplexity(int $rate, int $channels): self
    {
        $index = array_search($rate, self::RATES, true);
        $bits = (new BitWriter)->bits(self::OBJECT_LC, 5);
        $index === false ? $bits->bits(15, 4)->bits($rate >> 12, 12)->bits($rate, 12) : $bits->bits($index, 4);

        return self::parse($bits->bits($channels, 4)->bits(0, 3)->bytes());
    }

    /**
     * Set-up bytes from the three numbers that a header before each access unit holds.
     *
     * @throws BytesMissing
     */
    public static function plain(int $objectType, int $rateIndex, int $channelConfiguration): self
    {
        return self::parse((new BitWriter)->bits($objectType, 5)->bits($rateIndex, 4)->bits($channelConfiguration, 4)->bits(0, 3)->bytes());
    }

    /** Place of the core's rate in the table of rates; null where it stands in none. */
    public function rateIndex(): ?int
    {
        $index = array_search($this->coreRate, self::RATES, true);

        return $index === false ? null : $index;
    }

    /** What the decoder will give, as far as the set-up tells; implicit extensions show only in the packets. */
    public function audio(): AudioFormat
    {
        $doubled = $this->outputRate > $this->coreRate;

        return new AudioFormat(
            Codec::Aac,
            $this->outputRate,
            $this->parametricStereo ? Layout::stereo() : $this->layout(),
            null,
            $this->bytes,
            $doubled ? 2 * $this->coreFrameLength : $this->coreFrameLength,
            self::variant($this->objectType, $doubled, $this->parametricStereo),
        );
    }

    /** Exact name: LC, HE, HE v2, and the rarer object types by number. */
    public static function variant(int $objectType, bool $bandReplication, bool $parametricStereo): string
    {
        return match (true) {
            $parametricStereo => 'HE-AAC v2',
            $bandReplication => 'HE-AAC',
            $objectType === self::OBJECT_LC => 'AAC-LC',
            $objectType === self::OBJECT_MAIN => 'AAC Main',
            $objectType === self::OBJECT_LTP => 'AAC LTP',
            default => 'AAC (object type '.$objectType.')',
        };
    }

    /** ISO/IEC 14496-3, table 1.19: the order in which AAC codes its channels. */
    private function layout(): Layout
    {
        return match ($this->channelConfiguration) {
            1, 2, 3, 4, 5, 6 => AacLayouts::layout($this->channelConfiguration),
            7, 12 => AacLayouts::layout(8),
            default => Layout::stereo(),
        };
    }

    /** @throws BytesMissing */
    private static function objectType(BitReader $bits): int
    {
        $type = $bits->bits(5);

        return $type === 31 ? 32 + $bits->bits(6) : $type;
    }

    /** @throws BytesMissing */
    private static function rate(BitReader $bits): int
    {
        $index = $bits->bits(4);

        return $index === 15 ? max(1, $bits->bits(24)) : (self::RATES[$index] ?? 48000);
    }

    /**
     * The backward-compatible extension at the end (sync words 0x2B7 and 0x548).
     *
     * @return array{int, bool} output rate, parametric stereo
     *
     * @throws BytesMissing
     */
    private static function appended(BitReader $bits, int $rate): array
    {
        $bits->bits(2);
        if ($bits->remaining() < 17 || $bits->bits(11) !== 0x2B7 || self::objectType($bits) !== self::OBJECT_SBR || $bits->bits(1) === 0) {
            return [$rate, false];
        }
        $output = self::rate($bits);
        $stereo = $bits->remaining() >= 12 && $bits->bits(11) === 0x548 && $bits->bits(1) === 1;

        return [$output, $stereo];
    }

    public function bytes(): string
    {
        return $this->bytes;
    }
}
