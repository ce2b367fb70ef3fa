<?php

declare(strict_types=1);

namespace Octavox\Core\Tests\Support;

use Octavox\Core\Sound\Block;

/** An independent party for loudness: libebur128 (ebur128.h). */
final class LoudnessLibrary
{
    /** Integrated loudness, range, true and sample peaks. */
    private const MODE = 0x3F;

    /** @return array{float, float, list<float>} LUFS, LU, true peak of each channel */
    public static function measure(Block $block, int $rate): array
    {
        static $library = null;
        $library ??= \FFI::cdef('void *ebur128_init(unsigned int channels, unsigned long rate, int mode); int '
            .'ebur128_add_frames_float(void *st, const float *src, size_t frames); int ebur128_loudness_global(void *st, double *out); '
                .'int ebur128_loudness_range(void *st, double *out); int ebur128_true_peak(void *st, unsigned channel, double '
                    .'*out);', 'libebur128.so.1');
        $state = $library->ebur128_init($block->channels, $rate, self::MODE);
        $library->ebur128_add_frames_float($state, $block->buffer->at($block->first()), $block->frames);
        $out = \FFI::new('double');
        $library->ebur128_loudness_global($state, \FFI::addr($out));
        $loudness = (float) $out->cdata;
        $library->ebur128_loudness_range($state, \FFI::addr($out));
        $range = (float) $out->cdata;
        $peaks = [];
        for ($channel = 0; $channel < $block->channels; $channel++) {
            $library->ebur128_true_peak($state, $channel, \FFI::addr($out));
            $peaks[] = (float) $out->cdata;
        }

        return [$loudness, $range, $peaks];
    }
}
