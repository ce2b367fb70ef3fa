<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Video;

use Octavox\Core\Media\Codec;

/** Pictures between the form with start codes, as streams have them, and the one with lengths, as MP4 and Matroska have them. */
abstract class PictureUnits
{
    /** @return ?self null for pictures that are not made of such units */
    public static function of(Codec $codec): ?self
    {
        return match ($codec) {
            Codec::H264 => new AccessUnits,
            Codec::H265 => new HevcUnits,
            default => null,
        };
    }

    /** The decoder's record out of the first parameter sets; empty where there are none. */
    abstract public function configuration(string $bytes): string;

    /** Whether decoding can begin with it. */
    abstract public function isKey(string $bytes): bool;

    /** @return array{int, int} width and height, zeros where they do not show */
    public function size(string $bytes): array
    {
        foreach (NalUnits::split($bytes) as $unit) {
            $size = $this->told($unit);
            if ($size !== null) {
                return $size;
            }
        }

        return [0, 0];
    }

    /** A picture with lengths; parameter sets that stand in the record already, and delimiters, are left out. */
    public function withLengths(string $bytes, string $configuration): string
    {
        $units = array_filter(NalUnits::split($bytes), fn (string $unit): bool => ! $this->isDelimiter($unit)
            && ! ($this->isParameters($unit) && str_contains($configuration, $unit)));

        return NalUnits::withLengths(...array_values($units));
    }

    /**
     * @param  non-empty-string  $unit
     * @return ?array{int, int} width and height that the unit tells, null where it is no parameter set that tells them
     */
    abstract protected function told(string $unit): ?array;

    /** @param  non-empty-string  $unit */
    abstract protected function isDelimiter(string $unit): bool;

    /** @param  non-empty-string  $unit */
    abstract protected function isParameters(string $unit): bool;
}
