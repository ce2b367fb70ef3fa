<?php

declare(strict_types=1);

namespace Octavox\Core\Sound\Native;

/** Sums of many small whole numbers. */
final class Addition
{
    /** So many numbers, each below as much: float32 holds every sum of theirs exactly, as it has 24 bits. */
    public const MOST = 4096;

    private static ?self $one = null;

    private readonly \FFI\CData $numbers;

    private readonly \FFI\CData $floats;

    private readonly \FFI\CData $sum;

    private function __construct(private readonly \FFI $kernels)
    {
        $this->numbers = \FFI::new('char['. 4 * self::MOST.']');
        $this->floats = \FFI::new('float['.self::MOST.']');
        $this->sum = \FFI::new('float[1]');
    }

    /** @throws LibraryMissing */
    public static function get(): self
    {
        return self::$one ??= new self(Kernels::open());
    }

    /** @param  string  $numbers  32 bits each, most significant byte first; no more than {@see self::MOST}, each below it */
    public function ofSmall(string $numbers): int
    {
        $count = intdiv(strlen($numbers), 4);
        \FFI::memcpy($this->numbers, $numbers, 4 * $count);
        ($this->kernels->volk_32u_byteswap)($this->numbers, $count);
        ($this->kernels->volk_32i_s32f_convert_32f)($this->floats, $this->numbers, 1.0, $count);
        ($this->kernels->volk_32f_accumulator_s32f)($this->sum, $this->floats, $count);

        return (int) $this->sum[0];
    }
}
