<?php

declare(strict_types=1);

namespace Octavox\Core\Analysis;

/**
 * Where what stands in a waveform file. All numbers are least significant byte first.
 *
 * Head of 48 bytes: "OCTAVOX WAVEFORM", rate and channels (32 bits each), samples and samples done (64 bits each). Then the
 * resolutions, the finest first, each a run of steps; a step is for each channel the lowest and the highest value (16 bits each,
 * full scale ±32768). The finest step is 512 samples, each next resolution is eight times as coarse.
 */
final readonly class WaveformLayout
{
    public const HEAD = 48;

    public const FINEST = 512;

    public const COARSER = 8;

    private const NAME = 'OCTAVOX WAVEFORM';

    /** How files of earlier versions begin, which are alike otherwise. */
    private const FORMER_NAME = 'OCTAVOX RIBBON 1';

    private const LEVELS = 5;

    public function __construct(public int $rate, public int $channels, public int $samples) {}

    public function head(int $done): string
    {
        return str_pad(self::NAME.pack('VVPP', $this->rate, $this->channels, $this->samples, min($done, $this->samples)), self::HEAD, "\0");
    }

    /** @return ?array{self, int} the shape and the samples done; null where that is no waveform file */
    public static function read(string $head): ?array
    {
        $facts = strlen($head) >= self::HEAD && (str_starts_with($head, self::NAME) || str_starts_with($head, self::FORMER_NAME))
            ? unpack('Vrate/Vchannels/Psamples/Pdone', substr($head, strlen(self::NAME))) : false;
        if (! is_array($facts) || ! is_int($facts['rate']) || ! is_int($facts['channels']) || ! is_int($facts['samples'])
            || ! is_int($facts['done'])) {
            return null;
        }

        return [new self($facts['rate'], $facts['channels'], $facts['samples']), $facts['done']];
    }

    /**
     * The numbers of steps as they stand in the file.
     *
     * @return list<int> −32768 to 32767
     */
    public static function values(string $steps): array
    {
        /** @var list<int> $values */
        $values = array_values(unpack('v*', $steps) ?: []);

        return array_map(fn (int $value): int => $value >= 0x8000 ? $value - 0x10000 : $value, $values);
    }

    /** @return list<int> samples of a step of each resolution */
    public function levels(): array
    {
        return array_map(fn (int $level): int => self::FINEST * self::COARSER ** $level, range(0, self::LEVELS - 1));
    }

    public function steps(int $level): int
    {
        $step = self::FINEST * self::COARSER ** $level;

        return intdiv($this->samples + $step - 1, $step);
    }

    public function stepBytes(): int
    {
        return 4 * $this->channels;
    }

    public function place(int $level): int
    {
        $place = self::HEAD;
        for ($finer = 0; $finer < $level; $finer++) {
            $place += $this->steps($finer) * $this->stepBytes();
        }

        return $place;
    }

    public function bytes(): int
    {
        return $this->place(self::LEVELS);
    }
}
