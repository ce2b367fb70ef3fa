<?php

declare(strict_types=1);

namespace Octavox\Core\Sound\Native;

/**
 * Whole numbers ↔ float32, full scale ±1.0, rounded to nearest and limited at full scale,
 * by vector kernels; to 32 bits by the samplerate library (samplerate.h), which limits there too.
 */
final class SampleConversion
{
    private const FULL_16 = 32768.0;

    private const FULL_32 = 2147483648.0;

    private static ?self $one = null;

    private function __construct(private readonly \FFI $kernels, private readonly \FFI $library) {}

    /** @throws LibraryMissing */
    public static function get(): self
    {
        return self::$one ??= new self(Kernels::open(), Library::open('
            void src_float_to_int_array(const float *in, void *out, int len);
        ', ['libsamplerate.so.0'], 'libsamplerate0'));
    }

    /** @param  string  $bytes 16-bit samples in the byte order of this machine */
    public function from16(string $bytes, FloatBuffer $to, int $offset): void
    {
        ($this->kernels->volk_16i_s32f_convert_32f)($to->at($offset), $bytes, self::FULL_16, intdiv(strlen($bytes), 2));
    }

    /** @param  string  $bytes 32-bit samples in the byte order of this machine */
    public function from32(string $bytes, FloatBuffer $to, int $offset): void
    {
        ($this->kernels->volk_32i_s32f_convert_32f)($to->at($offset), $bytes, self::FULL_32, intdiv(strlen($bytes), 4));
    }

    /** @param  \FFI\CData  $numbers pointer to 16-bit samples of this machine */
    public function fromShorts(\FFI\CData $numbers, FloatBuffer $to, int $offset, int $count): void
    {
        ($this->kernels->volk_16i_s32f_convert_32f)($to->at($offset), \FFI::cast('char*', $numbers), self::FULL_16, $count);
    }

    /**
     * @param  \FFI\CData  $numbers  pointer to 32-bit whole numbers of this machine, the samples in their lower bits
     * @param  int  $bits  of one sample, up to 32
     */
    public function fromNumbers(\FFI\CData $numbers, int $bits, FloatBuffer $to, int $offset, int $count): void
    {
        ($this->kernels->volk_32i_s32f_convert_32f)($to->at($offset), \FFI::cast('char*', $numbers), 2.0 ** ($bits - 1), $count);
    }

    /** Into $room, which must hold 2 × $count bytes. */
    public function to16(FloatBuffer $from, int $offset, int $count, \FFI\CData $room): void
    {
        ($this->kernels->volk_32f_s32f_convert_16i)($room, $from->at($offset), self::FULL_16, $count);
    }

    /** As 16-bit samples in the byte order of this machine. */
    public function bytes16(FloatBuffer $from, int $offset, int $count): string
    {
        if ($count === 0) {
            return '';
        }
        $room = \FFI::new('char['. 2 * $count.']');
        $this->to16($from, $offset, $count, $room);

        return \FFI::string($room, 2 * $count);
    }

    /** Into $room, which must hold 4 × $count bytes. */
    public function to32(FloatBuffer $from, int $offset, int $count, \FFI\CData $room): void
    {
        $this->library->src_float_to_int_array($from->at($offset), $room, $count);
    }

    /**
     * Into whole numbers whose lower $bits bits hold the sample. The samples must be rounded to that bit depth and within its range:
     * nothing is limited.
     *
     * @param  int  $bits  4 to 24
     * @param  \FFI\CData  $room  must hold 4 × $count bytes
     */
    public function toNumbers(FloatBuffer $from, int $offset, int $count, int $bits, \FFI\CData $room): void
    {
        ($this->kernels->volk_32f_s32f_convert_32i)($room, $from->at($offset), 2.0 ** ($bits - 1), $count);
    }
}
