<?php

declare(strict_types=1);

namespace Octavox\Core\Sound\Native;

/** Band-limited sample-rate conversion of interleaved float32 by the SoX resampler library. */
final class RateConverter
{
    /** soxr.h: SOXR_HQ, 20 bits of precision; SOXR_VHQ, 28 bits. */
    private const HIGH = 4;

    private const VERY_HIGH = 6;

    private readonly \FFI $library;

    private readonly \FFI\CData $state;

    private readonly \FFI\CData $used;

    private readonly \FFI\CData $given;

    /**
     * @param  int  $from  Hz
     * @param  int  $to  Hz
     *
     * @throws LibraryMissing
     */
    public function __construct(int $from, int $to, private readonly int $channels, bool $finest)
    {
        $this->library = Library::open('
            typedef struct { double precision, phase_response, passband_end,
                stopband_begin; void *e; unsigned long flags; } soxr_quality_spec_t;
            void *soxr_create(double in, double out, unsigned channels, const char **error, const void *io,
                const soxr_quality_spec_t *quality, const void *runtime);
            soxr_quality_spec_t soxr_quality_spec(unsigned long recipe, unsigned long flags);
            const char *soxr_process(void *soxr, const float *in, size_t ilen, size_t *idone, float *out, size_t olen, size_t *odone);
            void soxr_delete(void *soxr);
        ', ['libsoxr.so.0'], 'libsoxr0');
        $quality = $this->library->soxr_quality_spec($finest ? self::VERY_HIGH : self::HIGH, 0);
        $state = $this->library->soxr_create($from, $to, $channels, null, null, \FFI::addr($quality), null);
        if ($state === null) {
            throw LibraryMissing::named('libsoxr.so.0', 'libsoxr0');
        }
        $this->state = $state;
        $this->used = \FFI::new('size_t');
        $this->given = \FFI::new('size_t');
    }

    public function __destruct()
    {
        if (isset($this->state)) {
            $this->library->soxr_delete($this->state);
        }
    }

    /** Converts frames from $offset of $in; null instead of a buffer says that the sound has ended. */
    public function convert(?FloatBuffer $in, int $offset, int $frames, FloatBuffer $out): ConvertedFrames
    {
        $this->library->soxr_process(
            $this->state,
            $in?->at($offset * $this->channels),
            $frames,
            \FFI::addr($this->used),
            $out->data,
            intdiv($out->capacity, $this->channels),
            \FFI::addr($this->given),
        );

        return new ConvertedFrames((int) $this->used->cdata, (int) $this->given->cdata);
    }
}
