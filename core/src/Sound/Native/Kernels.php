<?php

declare(strict_types=1);

namespace Octavox\Core\Sound\Native;

/** The vector kernels that are used of the VOLK library (volk/volk.h), each the fastest one that this processor has. */
final class Kernels
{
    /** @throws LibraryMissing */
    public static function open(): \FFI
    {
        // Kernels are pointers, which the first call of each replaces: never keep one.
        return Library::open('
            extern void (*volk_16i_s32f_convert_32f)(float *out, const char *in, float full, unsigned count);
            extern void (*volk_32i_s32f_convert_32f)(float *out, const char *in, float full, unsigned count);
            extern void (*volk_32f_s32f_convert_16i)(void *out, const float *in, float full, unsigned count);
            extern void (*volk_32f_s32f_convert_32i)(void *out, const float *in, float full, unsigned count);
            extern void (*volk_32f_x2_interleave_32fc)(float *out, const float *first, const float *second, unsigned count);
            extern void (*volk_32fc_deinterleave_32f_x2)(float *first, float *second, const float *in, unsigned count);
            extern void (*volk_32u_byteswap)(void *numbers, unsigned count);
            extern void (*volk_32f_accumulator_s32f)(float *sum, const float *in, unsigned count);
        ', ['libvolk.so.2.5'], 'libvolk2.5');
    }
}
